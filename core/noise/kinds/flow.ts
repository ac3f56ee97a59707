import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

export const SPREAD = 1.3;

/**
 * Domain warping: gradient noise at positions displaced by three others (Ebert et al., Texturing & Modeling, ch. 6).
 */
export const flow: NoiseKind = {
  kind: 'flow',
  title: 'Flow',
  help: 'Streaks and eddies, as in smoke.',
  field(seed, rate, clock, options) {
    const base = gradientField(seed, rate, clock, options);
    const [u, v, w] = [1, 2, 3].map((i) => gradientField(seed + 331 * i, rate, clock, options));
    return (x, y, z) => {
      const [a, b, c] = [u(x, y, z), v(x, y, z), w(x, y, z)];
      return SPREAD * base(x + 1.1 * a, y + 1.1 * b, z + 1.1 * c);
    };
  },
};
