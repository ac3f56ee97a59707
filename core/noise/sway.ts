import { wholePhase } from '../time/phase';
import type { Clock } from '../time/loop';
import { randomSource } from '../time/random';

/** Amplitudes in radians of one, two and three turns a loop, at rate 1. */
const HARMONICS = [1.2, 0.4, 0.2] as const;

/**
 * Closed wandering angles for `count` parts of a noise lattice at one moment.
 *
 * Each part has its own angle rate · Σ aₕ · sin 2π(h·t + φₕ) with random φₕ. Whole turns make it
 * close exactly for any real rate; the random phases make the crowd of parts look the same, on
 * average, at every moment, so nothing fades or pulses on the way round. At rate 0 all are 0.
 *
 * @returns `count` angles in radians.
 */
export function swayAngles(count: number, seed: number, rate: number, clock: Clock): Float64Array {
  const out = new Float64Array(count);
  if (rate === 0) return out;
  const random = randomSource(seed * 31 + 5);
  const turns = HARMONICS.map((_, i) => wholePhase(i + 1, clock));
  for (let i = 0; i < count; i++) {
    let angle = 0;
    for (let h = 0; h < HARMONICS.length; h++) angle += HARMONICS[h] * Math.sin(2 * Math.PI * (turns[h] + random()));
    out[i] = rate * angle;
  }
  return out;
}
