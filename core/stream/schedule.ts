/** When particles are released: `slots` of them, spread over `loops` loops, and then all again. */
export interface Schedule {
  readonly slots: number;
  /** Whole loops after which releases repeat. */
  readonly loops: number;
  /** Time of birth of a slot, in loops, from 0 to `loops`. */
  birth(slot: number): number;
  /**
   * Age, in loops, of the youngest particle of a slot at a time; older ones of the same slot are `loops`
   * older each.
   *
   * @param time in loops, within 0…loops
   */
  age(slot: number, time: number): number;
}

function schedule(slots: number, loops: number, birth: (slot: number) => number): Schedule {
  return {
    slots,
    loops,
    birth,
    age(slot, time) {
      let age = time - birth(slot);
      if (age < 0) age += loops;
      // What rounding has made a hair less than a whole round is a birth, not a death.
      return age > loops - 1e-9 ? 0 : age;
    },
  };
}

/** So many a loop, evenly. */
export function perLoop(count: number): Schedule {
  return schedule(count, 1, (slot) => slot / count);
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/**
 * So many at once every so many frames, beginning at frame 0. Where the loop is no whole number of
 * releases, they repeat only after several loops.
 */
export function everyFrames(every: number, frames: number, atOnce = 1): Schedule {
  const loops = every / gcd(frames, every);
  return schedule(((loops * frames) / every) * atOnce, loops, (slot) => (Math.floor(slot / atOnce) * every) / frames);
}
