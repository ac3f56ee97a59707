import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

/** Smooth gradient noise: soft hills and hollows. */
export const gradient: NoiseKind = {
  kind: 'gradient',
  title: 'Gradient',
  help: 'Soft hills and hollows.',
  field: gradientField,
};
