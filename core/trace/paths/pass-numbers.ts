/** Offsets of the first hit's sums, and of its count; see core/trace/assembly/paths/pixels.ts. */
export const FIRST_HIT = { position: 0, emission: 3, copy: 6, albedo: 9, normal: 12, distance: 15, count: 16 } as const;
/** Numbers before those of ribbons and sources. */
export const FIRST_RIBBON = 17;
/** Most light sources kept apart; those beyond are merged into the last. */
const MAX_SOURCES = 80;

/** Light sources kept apart: every lamp, the environment, emissive surfaces, and the rest. */
export const sourcesOf = (lamps: number) => Math.min(MAX_SOURCES, lamps + 3);

/** Pass numbers of a pixel, besides radiance and denoiser features. */
export function passNumbers(ribbons: number, lamps: number): number {
  return FIRST_RIBBON + ribbons + 1 + 3 * sourcesOf(lamps);
}
