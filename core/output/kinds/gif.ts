import { choice } from '../../declare/params';
import { defineOutput, sidesUpTo } from '../kind';

export const gif = defineOutput({
  kind: 'gif',
  title: 'GIF',
  help: '256 colours, one palette for the loop',
  group: 'animated',
  icon: 'film',
  ending: 'gif',
  params: {
    dots: choice(
      'Dithering',
      'even',
      [
        { value: 'even', title: 'Ordered' },
        { value: 'strewn', title: 'Diffused' },
        { value: 'none', title: 'None' },
      ],
      'How colours between those of the palette are made (dithering). An ordered pattern stands still from frame to frame.',
    ),
  },
  sheet: () => 'solid',
  refusal: ({ size }) => sidesUpTo(4096, 'GIF as it is made here')(size),
});
