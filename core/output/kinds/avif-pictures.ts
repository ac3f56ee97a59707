import { defineOutput } from '../kind';
import { clear, quality } from '../shared-params';

export const avifPictures = defineOutput({
  kind: 'avif-pictures',
  title: 'AVIF pictures',
  help: 'Numbered, the smallest',
  group: 'pictures',
  icon: 'images',
  ending: 'avif',
  many: true,
  params: { quality, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
});
