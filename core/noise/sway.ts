import { wholePhase } from '../time/phase';
import type { Clock } from '../time/loop';
import { randomSource } from '../maths/random';

/** Amplitudes in radians of one, two and three cycles per loop, at rate 1. */
const HARMONICS = [1.2, 0.4, 0.2] as const;

/**
 * Closed wandering angles for `count` parts of a noise lattice at one moment.
 *
 * Each part has its own angle rate · Σ aₕ · sin 2π(h·t + φₕ) with random φₕ. Whole cycles close exactly at any real
 * rate; random phases keep the statistics of all parts constant over time, so that nothing fades or pulses during the
 * loop. At rate 0 all are 0.
 *
 * @returns `count` angles in radians.
 */
export function swayAngles(count: number, seed: number, rate: number, clock: Clock): Float64Array {
  const out = new Float64Array(count);
  if (rate === 0) return out;
  const phases = phasesOf(count, seed);
  for (let h = 0, o = 0; h < HARMONICS.length; h++) {
    // sin 2π(ht + φ) by the addition theorem, which needs no sine per part.
    const turn = 2 * Math.PI * wholePhase(h + 1, clock);
    const [s, c] = [rate * HARMONICS[h] * Math.sin(turn), rate * HARMONICS[h] * Math.cos(turn)];
    for (let i = 0; i < count; i++, o += 2) out[i] += s * phases[o] + c * phases[o + 1];
  }
  return out;
}

const known = new Map<string, Float64Array>();

/** Cosine and sine of each part's phase, harmonic by harmonic. */
function phasesOf(count: number, seed: number): Float64Array {
  const key = `${count}/${seed}`;
  let phases = known.get(key);
  if (!phases) {
    if (known.size >= 64) known.clear();
    phases = new Float64Array(2 * count * HARMONICS.length);
    const random = randomSource(seed * 31 + 5);
    for (let i = 0; i < count; i++)
      for (let h = 0; h < HARMONICS.length; h++) {
        const phase = 2 * Math.PI * random();
        phases[2 * (h * count + i)] = Math.cos(phase);
        phases[2 * (h * count + i) + 1] = Math.sin(phase);
      }
    known.set(key, phases);
  }
  return phases;
}
