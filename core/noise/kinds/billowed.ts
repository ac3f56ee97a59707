import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

export const MEAN = 0.2206;
export const SPREAD = 2.6;

/** |n| of gradient noise: puffs that meet in sharp valleys. Offset to mean 0. */
export const billowed: NoiseKind = {
  kind: 'billowed',
  title: 'Billowed',
  help: 'Round puffs that meet in sharp valleys.',
  field(seed, rate, clock, options) {
    const base = gradientField(seed, rate, clock, options);
    return (x, y, z) => (Math.abs(base(x, y, z)) - MEAN) * SPREAD;
  },
};
