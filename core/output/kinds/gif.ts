import { choice } from '../../declare/params';
import { gifEvery } from '../gif-times';
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
  refusal: ({ size, fps, frames }) =>
    sidesUpTo(4096, 'GIF as it is made here')(size) ??
    (gifEvery(fps, frames) === null
      ? `A GIF shows at most 50 pictures a second, and this is ${frames} frames at ${fps}, of which no whole part makes a loop; use a frame rate up to 50, or a number of frames that ${Math.ceil(fps / 50)} goes into.`
      : null),
});
