import { number, seed } from '../declare/params';
import type { NoiseSettings } from '../noise/noise';

/** How much noise distorts a regular pattern. */
export const pushParams = {
  push: number('Distortion', 0, 'How far noise distorts it, as a share of its size.', {
    unit: '%',
    min: 0,
    max: 1000,
    soft: [0, 200],
    step: 1,
  }),
  pushScale: number('Distortion size', 0.6, 'Size of the features of that noise.', {
    unit: 'm',
    min: 0.001,
    max: 1000,
    soft: [0.05, 4],
    more: true,
  }),
  pushRate: number('Distortion rate', 0, 'How much that noise changes in a loop; it always closes.', {
    unit: '/loop',
    min: 0,
    max: 64,
    soft: [0, 6],
    step: 0.05,
    more: true,
  }),
  pushSeed: seed('Distortion seed', 0, 'A different number gives another distortion.', 'pattern', { more: true }),
} as const;

/** The distorting noise. */
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
