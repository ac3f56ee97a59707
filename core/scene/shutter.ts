/** Instants at which a frame that is blurred by movement is looked at, at most. */
export const MOST_INSTANTS = 16;

/**
 * When within its exposure a frame is looked at, in frames from its own moment: the middles of equal
 * parts of the time the shutter is open, which lies evenly about the frame. They come in such an
 * order (of van der Corput) that those gone through so far are spread over the whole of it.
 *
 * @param shutter how long a frame is exposed, as a share of the time from frame to frame
 * @param subframes how many pictures the frame is the average of; as many share an instant as come one after the other
 * @param most instants
 * @returns a power of two of instants, at most `subframes`; one, 0, where the shutter stands for an instant
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

/** Which of so many instants a sub-frame shows. */
export function instantOf(number: number, subframes: number, instants: number): number {
  return Math.min(instants - 1, Math.floor((number * instants) / subframes));
}

/** Sub-frames after which all instants have been gone through once, where a picture is seen while they add up. */
const ROUND = 64;

/**
 * The same for a picture that is seen while its sub-frames add up, and that may get many: all instants are gone through in
 * each round of 64, so that it is not sharp at first and blurred minutes later.
 *
 * @param subframes up to 64, or a multiple of it
 */
export function instantInRounds(number: number, subframes: number, instants: number): number {
  const round = Math.min(subframes, ROUND);
  return instantOf(number % round, round, instants);
}
