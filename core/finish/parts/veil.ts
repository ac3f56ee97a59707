import { choice, number } from '../../declare/params';
import { definePart } from '../part';

export const veil = definePart({
  kind: 'veil',
  title: 'See-through',
  help: 'Lets what is behind show, or adds its light to it.',
  icon: 'M9 4a6 6 0 1 0 0 12A6 6 0 0 0 9 4zM15 8a6 6 0 1 1 0 12 6 6 0 0 1 0-12z',
  params: {
    how: choice(
      'Mixes',
      'over',
      [
        { value: 'over', title: 'Over' },
        { value: 'add', title: 'Adds light' },
      ],
      'Covers what is behind in part, or adds to it, as light in the dark does.',
    ),
    alpha: number('Density', 50, 'How much of it is there.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
  },
  feature: 'veil',
  channels: { alpha: ['alpha', 0.01] },
  surface: (v) => ({ alpha: v.alpha / 100, additive: v.how === 'add' }),
});
