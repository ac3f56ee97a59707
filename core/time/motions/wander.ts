import { number, seed } from '../../declare/params';
import { closedCourse, defineMotion, swingAround } from '../motion';
import { splitTime } from '../phase';
import { randomSource } from '../../maths/random';
import type { Clock } from '../loop';

/** A periodic random signal: Σ amplitude · cos 2π(turns·t + phase), whole turns only. */
export interface Series {
  /** Coefficients of e^(2πiht) by harmonic h; 0 is unused. */
  readonly real: Float64Array;
  readonly imaginary: Float64Array;
  /** Offset and scale that map the signal to exactly 0…1. */
  readonly shift: number;
  readonly scale: number;
}

const known = new Map<string, Series>();

function seriesSum(
  turns: readonly number[],
  amplitudes: readonly number[],
  phases: readonly number[],
  t: number,
): number {
  let v = 0;
  for (let i = 0; i < turns.length; i++) v += amplitudes[i] * Math.cos(2 * Math.PI * (turns[i] * t + phases[i]));
  return v;
}

/** Samples at `count` even points of the loop; each term is advanced by complex multiplication. */
function sampleAll(
  turns: readonly number[],
  amplitudes: readonly number[],
  phases: readonly number[],
  count: number,
): Float64Array {
  const out = new Float64Array(count);
  for (let k = 0; k < turns.length; k++) {
    const angle = (2 * Math.PI * turns[k]) / count;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    let x = amplitudes[k] * Math.cos(2 * Math.PI * phases[k]);
    let y = amplitudes[k] * Math.sin(2 * Math.PI * phases[k]);
    for (let i = 0; i < count; i++) {
      out[i] += x;
      [x, y] = [x * c - y * s, x * s + y * c];
    }
  }
  return out;
}

/** Maximum of a smooth periodic signal on 0…1: its best sample, refined by ternary search. */
function highest(line: (t: number) => number, samples: Float64Array, sign: 1 | -1): number {
  const n = samples.length;
  let best = 0;
  for (let i = 1; i < n; i++) if (sign * samples[i] > sign * samples[best]) best = i;
  let [a, b] = [(best - 1) / n, (best + 1) / n];
  for (let i = 0; i < 60; i++) {
    const [c, d] = [a + (b - a) / 3, b - (b - a) / 3];
    if (sign * line(c) < sign * line(d)) a = c;
    else b = d;
  }
  return line((a + b) / 2);
}

/**
 * A random trigonometric polynomial: each octave is a band of harmonics around rate·2^k with random phases (spectral
 * synthesis of noise, e.g. Ebert et al., Texturing & Modeling, ch. 2). Periodic and smooth by construction, and as
 * lively at the seam as anywhere else.
 */
export function seriesFor(rate: number, octaves: number, seed: number): Series {
  const key = `${rate}/${octaves}/${seed}`;
  const hit = known.get(key);
  if (hit) return hit;
  const random = randomSource(seed * 7919 + 17);
  const weights = new Map<number, { a: number; p: number }>();
  for (let o = 0; o < octaves; o++) {
    const centre = rate * 2 ** o;
    const width = 0.35 * centre + 0.5;
    const last = Math.max(1, Math.ceil(centre + 2 * width));
    for (let h = 1; h <= last; h++) {
      // Both numbers are drawn for every harmonic, so that a change of rate keeps the phases.
      const gauss = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      const p = random();
      const a = (0.6 + 0.4 * Math.abs(gauss)) * Math.exp(-(((h - centre) / width) ** 2)) * 0.5 ** o;
      if (a > 1e-3) weights.set(h + o * 1e5, { a, p });
    }
  }
  const entries = [...weights].map(([h, w]) => ({ h: h % 1e5, ...w }));
  const turns = entries.map((e) => e.h);
  const amplitudes = entries.map((e) => e.a);
  const phases = entries.map((e) => e.p);
  const line = (t: number) => seriesSum(turns, amplitudes, phases, t);
  const samples = sampleAll(turns, amplitudes, phases, 16 * Math.max(8, ...turns));
  const max = highest(line, samples, 1);
  const min = highest(line, samples, -1);
  const count = Math.max(1, ...turns) + 1;
  const [real, imaginary] = [new Float64Array(count), new Float64Array(count)];
  turns.forEach((h, i) => {
    real[h] += amplitudes[i] * Math.cos(2 * Math.PI * phases[i]);
    imaginary[h] += amplitudes[i] * Math.sin(2 * Math.PI * phases[i]);
  });
  const series = { real, imaginary, shift: -min, scale: max > min ? 1 / (max - min) : 0 };
  if (known.size > 500) known.clear();
  known.set(key, series);
  return series;
}

/**
 * Value 0…1 of a periodic random signal and its change per frame: the real part of a polynomial in e^(2πit) by Horner's
 * rule, one complex product per harmonic.
 */
export function sample(series: Series, clock: Clock): { value: number; slope: number } {
  const angle = 2 * Math.PI * (splitTime(clock).frame / clock.frames);
  const [zx, zy] = [Math.cos(angle), Math.sin(angle)];
  const { real, imaginary } = series;
  let [x, y, dx, dy] = [0, 0, 0, 0];
  for (let h = real.length - 1; h >= 1; h--) {
    const [cx, cy] = [real[h], imaginary[h]];
    const tx = x * zx - y * zy;
    y = x * zy + y * zx + cy;
    x = tx + cx;
    const sx = dx * zx - dy * zy;
    dy = dx * zy + dy * zx + h * cy;
    dx = sx + h * cx;
  }
  // Both sums still lack a factor z; the slope is that of i·2πh.
  const value = x * zx - y * zy;
  const turned = dx * zy + dy * zx;
  return { value: (value + series.shift) * series.scale, slope: (-2 * Math.PI * turned * series.scale) / clock.frames };
}

/** Periodic noise as a motion: always one whole turn, so there is nothing to get wrong. */
export const wander = defineMotion({
  kind: 'wander',
  title: 'Wander',
  help: 'Closed noise: wanders between Low and High and returns to where it began.',
  turns: true,
  words: (s) => `seed ${String(s.seed)}`,
  ofValue: { low: 'value', high: 'value' },
  params: {
    low: number('Low', 0, 'The lowest value it reaches.', { moves: false }),
    high: number('High', 1, 'The highest value it reaches.', { moves: false }),
    rate: number('Rate', 3, 'About how many swells there are in a loop.', {
      unit: '/loop',
      min: 0.25,
      max: 64,
      soft: [0.25, 16],
      step: 0.25,
      moves: false,
    }),
    octaves: number('Octaves', 2, 'Layers of ever finer movement.', {
      min: 1,
      max: 5,
      soft: [1, 5],
      integer: true,
      moves: false,
    }),
    seed: seed('Seed', 1, 'A different number gives another path.', 'chance', { moves: false }),
  },
  start: (value, param) => ({ ...swingAround(value, param), rate: 3, octaves: 2, seed: 1 }),
  prepare(s) {
    const series = seriesFor(s.rate, s.octaves, s.seed);
    const span = s.high - s.low;
    return {
      course: closedCourse(),
      base: (clock) => s.low + span * sample(series, clock).value,
      speed: (clock) => span * sample(series, clock).slope,
    };
  },
});
