import { cellFinder } from '../feature-points';
import type { NoiseKind } from '../kind';

export const EDGES_MEAN = { euclidean: 0.1914, manhattan: 0.2807, chebyshev: 0.1544 } as const;
export const EDGES_SPREAD = { euclidean: 2.4, manhattan: 1.6, chebyshev: 2.7 } as const;

/** F2 − F1: zero on the walls between cells (S. Worley 1996). */
export const cellularEdges: NoiseKind = {
  kind: 'cellular-edges',
  title: 'Cell edges',
  help: 'Sharp furrows between cells, as in dried mud.',
  cellular: true,
  field(seed, rate, clock, options) {
    const find = cellFinder(seed, rate, clock, options);
    const [mean, spread] = [EDGES_MEAN[options?.metric ?? 'euclidean'], EDGES_SPREAD[options?.metric ?? 'euclidean']];
    return (x, y, z) => {
      const { first, second } = find(x, y, z);
      return (second - first - mean) * spread;
    };
  },
};
