/** Display value 0…1 to light, by the curve of sRGB (IEC 61966-2-1). */
export function displayToLight(c: number): number {
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}

/** Light 0…1 to display value, by the curve of sRGB (IEC 61966-2-1); held to 0…1. */
export function lightToDisplay(light: number): number {
  const x = Math.max(0, Math.min(1, light));
  return x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055;
}
