/** When particles are released: `slots` of them over `loops` loops, then again. */
export interface Schedule {
  readonly slots: number;
  /** Whole loops after which releases repeat. */
  readonly loops: number;
  /** Birth time of a slot in loops, from 0 to `loops`. */
  birth(slot: number): number;
  /**
   * Age in loops of a slot's youngest particle at a time; its older ones are `loops` older each.
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
      // An age that rounding leaves just below a whole round is a birth, not a death.
      return age > loops - 1e-9 ? 0 : age;
    },
  };
}

/** A number per loop, evenly spaced. */
export function perLoop(count: number): Schedule {
  return schedule(count, 1, (slot) => slot / count);
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/**
 * A burst every few frames, beginning at frame 0. If the loop is not a whole number of bursts, they repeat only after
 * several loops.
 */
export function everyFrames(every: number, frames: number, atOnce = 1): Schedule {
  const loops = every / gcd(frames, every);
  return schedule(((loops * frames) / every) * atOnce, loops, (slot) => (Math.floor(slot / atOnce) * every) / frames);
}
