import { number } from '../../declare/params';
import { definePictureEffect } from '../kind';

export const fringe = definePictureEffect({
  kind: 'fringe',
  title: 'Fringe',
  help: 'Colours separate towards the edges of the picture, as in a simple lens.',
  icon: 'M9 6a6 6 0 1 0 0 12A6 6 0 0 0 9 6zM15 6a6 6 0 1 1 0 12 6 6 0 0 1 0-12z',
  params: {
    amount: number('Amount', 20, 'How far red and blue separate at the corners: 100 % is a hundredth of the picture.', {
      unit: '%',
      min: -500,
      max: 500,
      soft: [0, 100],
      step: 1,
    }),
  },
  at: (v) => ({ type: 'fringe', amount: v.amount / 100 }),
});
