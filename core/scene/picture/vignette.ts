import { number } from '../../declare/params';
import { definePictureEffect } from '../kind';

export const vignette = definePictureEffect({
  kind: 'vignette',
  title: 'Vignette',
  help: 'The picture darkens towards its corners.',
  icon: 'M4 4h16v16H4zM12 7a5 5 0 1 0 0 10 5 5 0 0 0 0-10z',
  params: {
    amount: number('Amount', 35, 'How dark the corners are; below 0 they are lighter.', {
      unit: '%',
      min: -100,
      max: 100,
      soft: [-50, 100],
      step: 1,
    }),
    reach: number('Reach', 50, 'How far it comes in from the corners.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [1, 100],
      step: 1,
    }),
  },
  at: (v) => ({ type: 'vignette', amount: v.amount / 100, reach: v.reach / 100 }),
});
