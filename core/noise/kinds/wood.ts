import { wholePhase } from '../../time/phase';
import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

/** Rings per feature size. */
export const RINGS = 3;

/**
 * Rings round the upright axis, disturbed by gradient noise (after D. Peachey, in Ebert et al., Texturing & Modeling,
 * ch. 2). Rate moves the rings outwards by whole rings per loop, so that they close; its fraction goes to the noise.
 */
export const wood: NoiseKind = {
  kind: 'wood',
  title: 'Wood rings',
  help: 'Rings round the upright axis, as in a trunk.',
  tiles: 0,
  field(seed, rate, clock, options) {
    const push = gradientField(seed, rate, clock, options);
    const travel = rate === 0 ? 0 : wholePhase(Math.max(1, Math.round(rate)), clock);
    return (x, y, z) => {
      const r = Math.sqrt(x * x + z * z) + 0.35 * push(x, 0.4 * y, z);
      const p = r * RINGS - travel;
      const f = p - Math.floor(p);
      // Rises slowly through the year and falls quickly in winter; continuous, mean 0.
      return f < 0.8 ? -1 + 2.5 * f : 1 - 10 * (f - 0.8);
    };
  },
};
