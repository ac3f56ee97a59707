import { defineOutput, sidesUpTo } from '../kind';
import { clear, quality } from '../shared-params';

export const webpPictures = defineOutput({
  kind: 'webp-pictures',
  title: 'WebP pictures',
  help: 'Numbered, for the web',
  group: 'pictures',
  icon: 'images',
  ending: 'webp',
  many: true,
  params: { quality, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ size }) => sidesUpTo(16_383, 'WebP')(size),
});
