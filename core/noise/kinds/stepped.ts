import { cellFinder } from '../feature-points';
import type { NoiseKind } from '../kind';
import { latticeValues } from '../lattice-values';

/** Every cell at a level of its own, which goes up and down on a closed way. */
export const stepped: NoiseKind = {
  kind: 'stepped',
  title: 'Stepped cells',
  help: 'Each cell at a level of its own.',
  cellular: true,
  field(seed, rate, clock, options) {
    // The cells stand, and their levels move: a wall that runs through a form would tear it.
    const find = cellFinder(seed, 0, clock, options);
    const levels = latticeValues(seed, rate, clock);
    return (x, y, z) => levels[find(x, y, z).nearest];
  },
};
