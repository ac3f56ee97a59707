/** Display value 0…1 to linear light, by the sRGB transfer function (IEC 61966-2-1). */
export function displayToLight(c: number): number {
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}

/** Linear light 0…1 to display value, by the sRGB transfer function (IEC 61966-2-1); clamped to 0…1. */
export function lightToDisplay(light: number): number {
  const x = Math.max(0, Math.min(1, light));
  return x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055;
}

/** Display values 0…1 of '#rrggbb'. */
export function hexToDisplay(hex: string): [number, number, number] {
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];
}

/** The linear light of '#rrggbb'. */
export function hexToLight(hex: string): [number, number, number] {
  return hexToDisplay(hex).map(displayToLight) as [number, number, number];
}
