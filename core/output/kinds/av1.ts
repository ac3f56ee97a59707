import { defineOutput, evenSides, sidesFrom } from '../kind';
import { movieParams } from '../shared-params';

export const av1 = defineOutput({
  kind: 'av1',
  title: 'AV1 movie',
  help: 'WebM, the smallest',
  group: 'movies',
  icon: 'film',
  ending: 'webm',
  params: movieParams,
  sheet: () => 'solid',
  refusal: ({ size }) => evenSides(size) ?? sidesFrom(64, 'AV1 as it is made here')(size),
});
