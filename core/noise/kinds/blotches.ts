import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

/** Gradient noise saturated at two levels, leaving patches with soft borders: 1.5x − 0.5x³ of an amplified signal. */
export const blotches: NoiseKind = {
  kind: 'blotches',
  title: 'Blotches',
  help: 'Patches of two levels with soft borders.',
  field(seed, rate, clock, options) {
    const base = gradientField(seed, rate, clock, options);
    return (x, y, z) => {
      const v = Math.max(-1, Math.min(1, 5 * base(x, y, z)));
      return 1.5 * v - 0.5 * v * v * v;
    };
  },
};
