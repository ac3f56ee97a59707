/** When particles are released: `slots` of them, spread over `loops` loops, and then all again. */
export interface Schedule {
  readonly slots: number;
  /** Whole loops after which releases repeat. */
  readonly loops: number;
  /** Time of birth of a slot, in loops, from 0 to `loops`. */
  birth(slot: number): number;
}

/** So many a loop, evenly. */
export function perLoop(count: number): Schedule {
  return { slots: count, loops: 1, birth: (slot) => slot / count };
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/**
 * One every so many frames, beginning at frame 0. Where the loop is no whole number of them, releases
 * repeat only after several loops.
 */
export function everyFrames(every: number, frames: number): Schedule {
  const loops = every / gcd(frames, every);
  return { slots: (loops * frames) / every, loops, birth: (slot) => (slot * every) / frames };
}

/**
 * Ages, in loops, of the particles of a slot that live at a time: none, one or several, where lives are
 * longer than it takes until the slot comes round.
 *
 * @param time in loops, within 0…loops
 */
export function agesOf(schedule: Schedule, slot: number, time: number, life: number): number[] {
  let age = (time - schedule.birth(slot)) % schedule.loops;
  if (age < 0) age += schedule.loops;
  // What rounding has made a hair less than a whole round is a birth, not a death.
  if (age > schedule.loops - 1e-9) age = 0;
  const out: number[] = [];
  for (; age < life; age += schedule.loops) out.push(age);
  return out;
}
