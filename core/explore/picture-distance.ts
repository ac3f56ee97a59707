/** Fields along each side of a picture. */
const FIELDS = 12;

/** Mean colour of each of the 12 × 12 fields of a picture, three numbers each, in OKLab. */
export type Signature = Float32Array;

/**
 * Signature of a picture.
 *
 * @param rgba four bytes per pixel, sRGB, rows from the top; composited over black
 */
export function signatureOf(rgba: Uint8ClampedArray, width: number, height: number): Signature {
  const sums = new Float64Array(4 * FIELDS * FIELDS);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const field = 4 * (Math.floor((y * FIELDS) / height) * FIELDS + Math.floor((x * FIELDS) / width));
      const i = 4 * (y * width + x);
      const alpha = rgba[i + 3] / 255;
      for (let k = 0; k < 3; k++) sums[field + k] += LIGHT[rgba[i + k]] * alpha;
      sums[field + 3]++;
    }
  const out = new Float32Array(3 * FIELDS * FIELDS);
  for (let f = 0; f < FIELDS * FIELDS; f++) {
    const n = sums[4 * f + 3] || 1;
    out.set(oklab(sums[4 * f] / n, sums[4 * f + 1] / n, sums[4 * f + 2] / n), 3 * f);
  }
  return out;
}

/**
 * Visible difference of two pictures: the mean colour difference of their fields, ΔE in OKLab as in CSS Color Module
 * Level 4, times 100. Black and white are 100 apart; 2 is just visible in a patch.
 */
export function pictureDistance(a: Signature, b: Signature): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += 3) sum += Math.hypot(a[i] - b[i], a[i + 1] - b[i + 1], a[i + 2] - b[i + 2]);
  return (100 * sum) / (a.length / 3);
}

/** The same over several moments of a loop. */
export function loopDistance(a: readonly Signature[], b: readonly Signature[]): number {
  const n = Math.min(a.length, b.length);
  let sum = 0;
  for (let i = 0; i < n; i++) sum += pictureDistance(a[i], b[i]);
  return n === 0 ? 0 : sum / n;
}

/** Linear light of a byte, 0…1 (IEC 61966-2-1). */
const LIGHT = Float32Array.from({ length: 256 }, (_, i) => {
  const x = i / 255;
  return x <= 0.04045 ? x / 12.92 : ((x + 0.055) / 1.055) ** 2.4;
});

/** Linear sRGB in OKLab (B. Ottosson, “A perceptual color space for image processing”, 2020). */
function oklab(r: number, g: number, b: number): [number, number, number] {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
