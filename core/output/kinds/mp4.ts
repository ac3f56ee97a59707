import { defineOutput, evenSides, sidesUpTo } from '../kind';
import { movieParams } from '../shared-params';

export const mp4 = defineOutput({
  kind: 'mp4',
  title: 'MP4 movie',
  help: 'H.264, plays everywhere',
  group: 'movies',
  icon: 'film',
  ending: 'mp4',
  params: movieParams,
  sheet: () => 'solid',
  refusal: ({ size }) => evenSides(size) ?? sidesUpTo(4096, 'H.264')(size),
});
