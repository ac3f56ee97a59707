/** Numbers of a pixel's place, own light and copy, before those of ribbons and sources; see core/trace/assembly/pixels.ts. */
export const FIRST_RIBBON = 9;
/** Sources of light that are told apart at most; those beyond are with the last. */
const MOST_SOURCES = 80;

/** What light is told apart by: every lamp, the sky, what glows, and the rest. */
export const sourcesOf = (lamps: number) => Math.min(MOST_SOURCES, lamps + 3);

/** Numbers that are kept of a pixel besides its light and its guides. */
export function passNumbers(ribbons: number, lamps: number): number {
  return FIRST_RIBBON + ribbons + 1 + 3 * sourcesOf(lamps);
}
