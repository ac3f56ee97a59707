import { defineOutput, evenSides, sidesFrom } from '../kind';
import { quality } from '../shared-params';

export const avif = defineOutput({
  kind: 'avif',
  title: 'Animated AVIF',
  help: 'For the web, the smallest',
  group: 'animated',
  icon: 'film',
  ending: 'avif',
  params: { quality },
  sheet: () => 'solid',
  refusal: ({ size }) => evenSides(size) ?? sidesFrom(64, 'An animated AVIF as it is made here')(size),
});
