import { choice } from '../../declare/params';
import { defineOutput, evenSides, sidesFrom } from '../kind';
import { movieParams } from '../shared-params';

export const hevc = defineOutput({
  kind: 'hevc',
  title: 'H.265 movie',
  help: 'MP4, for large screens',
  group: 'movies',
  icon: 'film',
  ending: 'mp4',
  params: {
    ...movieParams,
    bits: choice(
      'Depth',
      '10',
      [
        { value: '8', title: '8 bit' },
        { value: '10', title: '10 bit' },
      ],
      '10 bit keeps soft shading free of banding.',
    ),
  },
  sheet: () => 'solid',
  refusal: ({ size }) => evenSides(size) ?? sidesFrom(64, 'H.265 as it is made here')(size),
});
