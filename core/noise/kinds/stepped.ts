import { cellFinder } from '../feature-points';
import type { NoiseKind } from '../kind';
import { latticeValues } from '../lattice-values';

/** A constant level in every cell, which rises and falls on a closed path. */
export const stepped: NoiseKind = {
  kind: 'stepped',
  title: 'Stepped cells',
  help: 'Each cell at a level of its own.',
  cellular: true,
  field(seed, rate, clock, options) {
    // The cells stand still and only their levels move: a cell wall moving through a form would tear it.
    const find = cellFinder(seed, 0, clock, options);
    const levels = latticeValues(seed, rate, clock);
    return (x, y, z) => levels[find(x, y, z).nearest];
  },
};
