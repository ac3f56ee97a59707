import { number, seed } from '../declare/params';
import type { NoiseSettings } from '../noise/noise';

/** By how much a regular pattern is pushed about by a noise. */
export const pushParams = {
  push: number('Unrest', 0, 'How far noise pushes it about, as a share of its own size.', {
    unit: '%',
    min: 0,
    max: 1000,
    soft: [0, 200],
    step: 1,
  }),
  pushScale: number('Unrest size', 0.6, 'Size of what pushes it about.', {
    unit: 'm',
    min: 0.001,
    max: 1000,
    soft: [0.05, 4],
    more: true,
  }),
  pushRate: number('Unrest rate', 0, 'How much that changes in a loop; it always closes.', {
    unit: '/loop',
    min: 0,
    max: 64,
    soft: [0, 6],
    step: 0.05,
    more: true,
  }),
  pushSeed: seed('Unrest seed', 0, 'Another number, another unrest.', 'pattern', { more: true }),
} as const;

/** The noise that pushes. */
export function pushNoise(v: {
  readonly pushScale: number;
  readonly pushRate: number;
  readonly pushSeed: number;
}): NoiseSettings {
  return {
    kind: 'gradient',
    scale: v.pushScale,
    stretch: [1, 1, 1],
    octaves: 3,
    contrast: 1,
    brightness: 0,
    low: -1,
    high: 1,
    absolute: false,
    invert: false,
    seed: v.pushSeed,
    rate: v.pushRate,
  };
}
