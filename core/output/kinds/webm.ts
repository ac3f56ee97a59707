import { defineOutput, evenSides } from '../kind';
import { clear, movieParams } from '../shared-params';

export const webm = defineOutput({
  kind: 'webm',
  title: 'WebM movie',
  help: 'VP9, with or without alpha',
  group: 'movies',
  icon: 'film',
  ending: 'webm',
  params: { ...movieParams, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ size }) => evenSides(size),
});
