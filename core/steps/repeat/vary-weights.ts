import { centresOf, pointsMesh } from '../../copies/copies';
import type { NoiseSettings } from '../../noise/noise';
import { sampleNoise } from '../../noise/sample';
import { settingsFrom, type NoiseValues } from '../../noise/noise-params';
import type { Copies } from '../../shape/mesh';
import { chanceOf } from '../../time/chance';
import { regionWeights, type Region } from '../deform/region';
import type { StepContext } from '../step';

export interface DealtBy {
  readonly by: 'same' | 'order' | 'chance' | 'place' | 'noise';
  readonly runs: 'once' | 'back';
  readonly times: number;
  readonly one: 'copy' | 'group';
  readonly axis: 'x' | 'y' | 'z' | 'out';
  readonly lowAt: number;
  readonly highAt: number;
  readonly clamp: boolean;
  readonly seed: number;
}

/** Index of each copy in the order that it is counted by, and the total. */
export function ordersOf(copies: Copies, one: 'copy' | 'group'): { order: Float32Array; count: number } {
  // Copies that share a place of the last repeat are counted separately unless they go together.
  if (!copies.group || one === 'group') return { order: copies.order, count: copies.places };
  const order = Float32Array.from(copies.source, (_, i) => i);
  return { order, count: order.length };
}

/** The number by which copies draw random values: their own, or that of their place. */
export function numbersOf(copies: Copies, one: 'copy' | 'group'): (i: number) => number {
  const { group, ids } = copies;
  if (group && one === 'group') return (i) => group[i];
  return ids ? (i) => ids[i] : (i) => i;
}

/**
 * Position of each copy between the two values: 0 at the first, 1 at the second. Noise and place may go beyond unless
 * they are clamped.
 */
export function weightsOf(v: DealtBy & Omit<NoiseValues, 'space'>, copies: Copies, context: StepContext): Float32Array {
  const n = copies.source.length;
  let out: Float32Array = new Float32Array(v.by === 'noise' ? 0 : n);
  switch (v.by) {
    case 'same':
      out.fill(1);
      break;
    case 'order': {
      const { order, count } = ordersOf(copies, v.one);
      for (let i = 0; i < n; i++) {
        // “There and back” has its far end half way, so that on a ring the last copy is next to the first.
        let x =
          v.runs === 'back' ? (v.times * order[i]) / Math.max(1, count) : (v.times * order[i]) / Math.max(1, count - 1);
        if (v.runs === 'back') x = 1 - Math.abs(2 * (x - Math.floor(x)) - 1);
        else if (v.times > 1) x = x === v.times ? 1 : x - Math.floor(x);
        out[i] = x;
      }
      break;
    }
    case 'chance': {
      const chance = chanceOf(v.seed);
      const number = numbersOf(copies, v.one);
      for (let i = 0; i < n; i++) out[i] = chance(number(i));
      break;
    }
    case 'place': {
      const p = centresOf(copies);
      const span = v.highAt - v.lowAt || 1e-9;
      const axis = 'xyz'.indexOf(v.axis);
      for (let i = 0; i < n; i++) {
        const at =
          v.axis === 'out' ? Math.sqrt(p[3 * i] ** 2 + p[3 * i + 1] ** 2 + p[3 * i + 2] ** 2) : p[3 * i + axis];
        out[i] = (at - v.lowAt) / span;
      }
      break;
    }
    default:
      out = sampleNoise(noiseOf(v), context.clock, pointsMesh(copies).positions);
  }
  if (v.clamp) for (let i = 0; i < n; i++) out[i] = Math.max(0, Math.min(1, out[i]));
  return out;
}

/** The noise that distributes values: mapped from −1…1 to 0…1, with everything that follows it. */
export function noiseOf(v: Omit<NoiseValues, 'space'>): NoiseSettings {
  const s = settingsFrom({ ...v, space: 'place' });
  return {
    ...s,
    contrast: 0.5 * s.contrast,
    brightness: 0.5 + 0.5 * s.brightness,
    low: 0.5 + 0.5 * s.low,
    high: 0.5 + 0.5 * s.high,
  };
}

/** Strength of the region at each copy; null if all are at full strength. */
export function strengthsOf(v: Region, copies: Copies, context: StepContext): Float32Array | null {
  return regionWeights(v, pointsMesh(copies), context);
}
