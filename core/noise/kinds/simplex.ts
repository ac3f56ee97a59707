import { gradientTable } from '../gradients';
import type { NoiseKind } from '../kind';
import { permutation } from '../permutation';
import { simplexField } from '../simplex';

/**
 * Simplex noise with gradients that turn on closed paths: rounder than gradient noise, without directional artefacts
 * along the axes.
 */
export const simplex: NoiseKind = {
  kind: 'simplex',
  title: 'Simplex',
  help: 'Soft and even, without a grain along the axes.',
  tiles: 3,
  field: (seed, rate, clock, options) =>
    simplexField(permutation(seed), gradientTable(seed, rate, clock), options?.mask),
};
