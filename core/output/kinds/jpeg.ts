import { number } from '../../declare/params';
import { defineOutput } from '../kind';

export const jpeg = defineOutput({
  kind: 'jpeg',
  title: 'JPEG pictures',
  help: 'Numbered, small',
  group: 'pictures',
  icon: 'images',
  ending: 'jpg',
  many: true,
  params: {
    quality: number('Quality', 92, 'From 90 on, losses are hard to see.', {
      min: 1,
      max: 100,
      soft: [60, 100],
      integer: true,
      moves: false,
    }),
  },
  sheet: () => 'solid',
});
