import type { Clock } from '../time/loop';
import { randomSource } from '../maths/random';
import type { Field } from './gradients';
import { USUAL_NOISE, type NoiseOptions } from './kind';
import { permutation } from './permutation';
import { swayAngles } from './sway';

/** Close to 1 spreads values most evenly; below 1 they turn round softly at the ends. */
const SOFT = 0.97;
/** Standard deviation of the values; uniform values over −1…1 have 1/√3. */
const SPREAD = 0.6;

/**
 * 256 values at one moment, nearly all in −1…1, each on its own closed path, spread evenly at every moment (a triangle
 * wave with rounded peaks, of a wandering angle).
 */
export function latticeValues(seed: number, rate: number, clock: Clock): Float64Array {
  const random = randomSource(seed + 401);
  const sway = swayAngles(256, seed + 409, rate, clock);
  const out = new Float64Array(256);
  const full = Math.asin(SOFT);
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < 256; i++) {
    const v = Math.asin(SOFT * Math.sin(2 * Math.PI * random() + sway[i])) / full;
    out[i] = v;
    sum += v;
    squares += v * v;
  }
  // Mean and spread of so few values would vary visibly over time, so both are normalised.
  const mean = sum / 256;
  const factor = SPREAD / Math.sqrt(squares / 256 - mean * mean);
  for (let i = 0; i < 256; i++) out[i] = (out[i] - mean) * factor;
  return out;
}

/** Lattice values blended with the quintic fade of improved noise (value noise, Ebert et al., ch. 2). */
export function valueField(
  seed: number,
  values: ArrayLike<number>,
  { mask }: Pick<NoiseOptions, 'mask'> = USUAL_NOISE,
): Field {
  const p = permutation(seed);
  return (x, y, z) => {
    const fx = Math.floor(x);
    const fy = Math.floor(y);
    const fz = Math.floor(z);
    x -= fx;
    y -= fy;
    z -= fz;
    const u = x * x * x * (x * (x * 6 - 15) + 10);
    const v = y * y * y * (y * (y * 6 - 15) + 10);
    const w = z * z * z * (z * (z * 6 - 15) + 10);
    const [A, B] = [p[fx & mask], p[(fx + 1) & mask]];
    const [Y, Y1, Z, Z1] = [fy & mask, (fy + 1) & mask, fz & mask, (fz + 1) & mask];
    const [AA, AB, BA, BB] = [p[A + Y], p[A + Y1], p[B + Y], p[B + Y1]];
    const mix = (a: number, b: number, t: number) => a + t * (b - a);
    const near = mix(mix(values[p[AA + Z]], values[p[BA + Z]], u), mix(values[p[AB + Z]], values[p[BB + Z]], u), v);
    const far = mix(mix(values[p[AA + Z1]], values[p[BA + Z1]], u), mix(values[p[AB + Z1]], values[p[BB + Z1]], u), v);
    return mix(near, far, w);
  };
}
