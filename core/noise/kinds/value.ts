import type { NoiseKind } from '../kind';
import { latticeValues, valueField } from '../lattice-values';

/** Random values at the corners of a lattice, blended: softer and more regular than gradient noise. */
export const value: NoiseKind = {
  kind: 'value',
  title: 'Value',
  help: 'Soft, rather square patches.',
  field: (seed, rate, clock, options) => valueField(seed, latticeValues(seed, rate, clock), options),
};
