/** Most instants of a motion-blurred frame in quick light. */
export const MOST_INSTANTS = 16;

/**
 * Instants of an exposure, in frames from the frame's own time: the middles of equal parts of the time the shutter is
 * open, which is centred on the frame, in van der Corput's order, so that any number of them is spread over the whole.
 *
 * @param shutter exposure as a share of the frame interval
 * @param subframes pictures averaged; consecutive ones share an instant
 * @param most instants
 * @returns a power of two of instants, at most `subframes`; a single 0 without exposure
 */
export function instantsOf(shutter: number, subframes: number, most = MOST_INSTANTS): number[] {
  if (!(shutter > 0) || subframes < 2) return [0];
  const bits = Math.floor(Math.log2(Math.min(most, subframes)));
  const count = 2 ** bits;
  return Array.from({ length: count }, (_, i) => {
    let place = 0;
    for (let b = 0; b < bits; b++) if (i & (1 << b)) place |= 1 << (bits - 1 - b);
    return ((place + 0.5) / count - 0.5) * shutter;
  });
}

/** The instant of a sub-frame. */
export function instantOf(number: number, subframes: number, instants: number): number {
  return Math.min(instants - 1, Math.floor((number * instants) / subframes));
}

/** Sub-frames per round in which all instants are visited, if a picture is visible while it accumulates. */
const ROUND = 64;

/**
 * The same for a picture that is visible while it accumulates: each round of 64 visits all instants, so that it is not
 * sharp first and blurred minutes later.
 *
 * @param subframes up to 64, or a multiple of it
 */
export function instantInRounds(number: number, subframes: number, instants: number): number {
  const round = Math.min(subframes, ROUND);
  return instantOf(number % round, round, instants);
}
