import { number } from '../../declare/params';

/** How the density of air falls off with height. */
export const thinningParams = {
  height: number(
    'Thins over',
    0,
    'Height in which it thins to a third above the ground; 0 is the same at every height.',
    {
      unit: 'm',
      min: 0,
      max: 10_000,
      soft: [0, 5],
      step: 0.1,
    },
  ),
  ground: number('Ground', -1, 'Height at which the density holds.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-3, 3],
  }),
} as const;
