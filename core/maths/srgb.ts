/** Display value 0…1 to light, by the curve of sRGB (IEC 61966-2-1). */
export function displayToLight(c: number): number {
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}
