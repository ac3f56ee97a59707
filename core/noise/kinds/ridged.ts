import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

/** Mean of (1 − |n|)² of gradient noise over space, measured; a test holds it. */
export const MEAN = 0.631;
export const SPREAD = 1.6;

/**
 * Ridged noise: (1 − |n|)² of gradient noise has sharp crests where n crosses zero (F. K. Musgrave, in Ebert et al.,
 * Texturing & Modeling, ch. 16). Offset to mean 0.
 */
export const ridged: NoiseKind = {
  kind: 'ridged',
  title: 'Ridged',
  help: 'Sharp crests between smooth hollows.',
  field(seed, rate, clock, options) {
    const base = gradientField(seed, rate, clock, options);
    return (x, y, z) => {
      const r = 1 - Math.abs(base(x, y, z));
      return (r * r - MEAN) * SPREAD;
    };
  },
};
