import { defineOutput, sidesUpTo } from '../kind';
import { clear, quality } from '../shared-params';

export const webp = defineOutput({
  kind: 'webp',
  title: 'Animated WebP',
  help: 'For the web, with or without alpha',
  group: 'animated',
  icon: 'film',
  ending: 'webp',
  params: { quality, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ size }) => sidesUpTo(16_383, 'WebP')(size),
});
