import { asset, choice, colour } from '../../declare/params';
import { defineBackdrop } from '../kind';

export const imageBackdrop = defineBackdrop({
  kind: 'image',
  title: 'Picture',
  help: 'A picture behind everything, just as it is; nothing lights it.',
  icon: 'M4 5h16v14H4zM4 16l5-5 4 4 3-3 4 4M15.500 9h.01',
  params: {
    file: asset('File', 'image', 'A picture in PNG, JPEG or WebP.'),
    fit: choice(
      'Fits',
      'cover',
      [
        { value: 'cover', title: 'Fills', help: 'It fills the frame; what sticks out is cut off.' },
        { value: 'contain', title: 'Whole', help: 'All of it is seen, with the colour around it.' },
        { value: 'stretch', title: 'Stretched', help: 'Its corners are those of the frame.' },
      ],
      'How it fits the frame.',
    ),
    colour: colour('Colour', '#22262E', 'Around the picture, and where it is transparent.'),
  },
  at: (v) => ({ type: 'image', colour: v.colour, file: v.file, fit: v.fit }),
});
