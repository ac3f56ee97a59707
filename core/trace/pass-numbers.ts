/** Where what is told of a pixel stands: of what is met first, and how often; see core/trace/assembly/pixels.ts. */
export const FIRST = { place: 0, own: 3, copy: 6, colour: 9, normal: 12, far: 15, count: 16 } as const;
/** Numbers before those of ribbons and sources. */
export const FIRST_RIBBON = 17;
/** Sources of light that are told apart at most; those beyond are with the last. */
const MOST_SOURCES = 80;

/** What light is told apart by: every lamp, the sky, what glows, and the rest. */
export const sourcesOf = (lamps: number) => Math.min(MOST_SOURCES, lamps + 3);

/** Numbers that are kept of a pixel besides its light and its guides. */
export function passNumbers(ribbons: number, lamps: number): number {
  return FIRST_RIBBON + ribbons + 1 + 3 * sourcesOf(lamps);
}
