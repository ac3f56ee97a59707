import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

export const MEAN = 0.4766;
export const SPREAD = 2.1;

/**
 * A caustic-like net, as light draws on the floor of a pool: the crests of two gradient noises, each read at positions
 * displaced by the other, multiplied. Offset to mean 0.
 */
export const water: NoiseKind = {
  kind: 'water',
  title: 'Water light',
  help: 'A net of bright lines, as on the ground of a pool.',
  field(seed, rate, clock, options) {
    const a = gradientField(seed, rate, clock, options);
    const b = gradientField(seed + 577, rate, clock, options);
    return (x, y, z) => {
      const m = a(x, y, z);
      const n = b(x + 0.35 * m, y - 0.35 * m, z);
      const k = a(x + 0.5 * n + 7.3, y + 0.35 * n, z - 0.35 * n);
      const [p, q] = [1 - Math.abs(n), 1 - Math.abs(k)];
      return (p * p * q * q * 1.2 - MEAN) * SPREAD;
    };
  },
};
