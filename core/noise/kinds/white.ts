import type { NoiseKind } from '../kind';
import { latticeValues } from '../lattice-values';
import { permutation } from '../permutation';

/** Grains per feature size. */
export const GRAIN = 32;

/** An independent level for every cell of a fine lattice. */
export const white: NoiseKind = {
  kind: 'white',
  title: 'White',
  help: 'Every point random by itself: a rough grain.',
  field(seed, rate, clock, options) {
    const p = permutation(seed);
    const levels = latticeValues(seed, rate, clock);
    const mask = options?.mask ?? 255;
    const wrap = Math.min(255, (mask + 1) * GRAIN - 1);
    return (x, y, z) =>
      levels[p[p[p[Math.floor(x * GRAIN) & wrap] + (Math.floor(y * GRAIN) & wrap)] + (Math.floor(z * GRAIN) & wrap)]];
  },
};
