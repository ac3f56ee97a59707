/** From few to many, display values: dark to warm and bright, so that it also reads without colour. */
const RAMP = [
  [24, 26, 38],
  [38, 70, 132],
  [44, 140, 150],
  [196, 196, 84],
  [250, 244, 214],
] as const;

/**
 * Colour for a number of samples, on a logarithmic scale from one to the most that a pixel may have.
 *
 * @returns red, green, blue and alpha, 0…255
 */
export function sampleColour(count: number, most: number): [number, number, number, number] {
  if (count < 1) return [0, 0, 0, 255];
  const share = most > 1 ? Math.min(1, Math.log(count) / Math.log(most)) : 1;
  const at = share * (RAMP.length - 1);
  const i = Math.min(RAMP.length - 2, Math.floor(at));
  const [a, b] = [RAMP[i], RAMP[i + 1]];
  return [0, 1, 2].map((k) => Math.round(a[k] + (b[k] - a[k]) * (at - i))).concat(255) as [
    number,
    number,
    number,
    number,
  ];
}
