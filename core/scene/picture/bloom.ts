import { number } from '../../declare/params';
import { definePictureEffect } from '../kind';

export const bloom = definePictureEffect({
  kind: 'bloom',
  title: 'Bloom',
  help: 'Bright light spills over edges, as in a lens.',
  icon: 'M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8zM12 2v3M12 19v3M2 12h3M19 12h3M5 5l2 2M17 17l2 2M5 19l2-2M17 7l2-2',
  params: {
    amount: number('Amount', 40, 'How much of the light spills.', {
      unit: '%',
      min: 0,
      max: 400,
      soft: [0, 150],
      step: 1,
    }),
    spread: number('Spread', 60, 'From a narrow halo to a wide haze.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    from: number('From', 0.8, 'Only light brighter than this spills; 1 is white.', {
      unit: '×',
      min: 0,
      max: 100,
      soft: [0, 3],
      step: 0.05,
    }),
  },
  at: (v) => ({ type: 'bloom', amount: v.amount / 100, spread: v.spread / 100, from: v.from }),
});
