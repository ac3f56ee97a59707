import { cellFinder } from '../feature-points';
import type { NoiseKind } from '../kind';

export const SECOND_MEAN = { euclidean: 0.7172, manhattan: 1.0524, chebyshev: 0.5796 } as const;
export const SECOND_SPREAD = { euclidean: 1.9, manhattan: 1.3, chebyshev: 2.2 } as const;

/** F2, the distance to the second nearest feature point (S. Worley 1996). */
export const cellularSecond: NoiseKind = {
  kind: 'cellular-second',
  title: 'Second cells',
  help: 'Overlapping discs: distance to the second nearest point.',
  cellular: true,
  field(seed, rate, clock, options) {
    const find = cellFinder(seed, rate, clock, options);
    const [mean, spread] = [SECOND_MEAN[options?.metric ?? 'euclidean'], SECOND_SPREAD[options?.metric ?? 'euclidean']];
    return (x, y, z) => (find(x, y, z).second - mean) * spread;
  },
};
