import { choice, number, toggle } from '../declare/params';

/** Settings that several kinds of output have. */
export const clear = toggle('Without backdrop', false, 'Transparent where nothing covers the picture.');

export const depth = choice(
  'Depth',
  '8',
  [
    { value: '8', title: '8 bit' },
    { value: '16', title: '16 bit' },
  ],
  '16 bit has no banding in soft shading and can be graded.',
);

export const quality = choice(
  'Quality',
  'good',
  [
    { value: 'preview', title: 'Preview' },
    { value: 'good', title: 'Good' },
    { value: 'lossless', title: 'Visually lossless' },
  ],
  'Small for a preview, good for screens, or without visible loss even side by side.',
);

export const plays = number('Played', 1, 'How many times the loop is in the file.', {
  unit: '×',
  min: 1,
  max: 200,
  soft: [1, 20],
  integer: true,
  moves: false,
});

export const wholePictures = toggle(
  'All-intra',
  false,
  'Encodes every frame by itself (all-intra): a larger file in which all frames have the same quality.',
);

export const movieParams = { quality, plays, whole: wholePictures } as const;
