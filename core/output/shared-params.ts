import { choice, number, toggle } from '../declare/params';

/** Settings that several kinds of output have. */
export const clear = toggle('Without backdrop', false, 'See-through where nothing covers the picture.');

export const depth = choice(
  'Depth',
  '8',
  [
    { value: '8', title: '8 bit' },
    { value: '16', title: '16 bit' },
  ],
  '16 bit has no steps in soft shading, and stands being graded.',
);

export const quality = choice(
  'Quality',
  'good',
  [
    { value: 'preview', title: 'Preview' },
    { value: 'good', title: 'Good' },
    { value: 'lossless', title: 'Visually lossless' },
  ],
  'Small to look at; good for screens; nothing to be seen even side by side.',
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
  'Whole pictures',
  false,
  'Every frame stands for itself: a larger file, in which no frame can differ from its neighbours in how well it was kept.',
);

export const movieParams = { quality, plays, whole: wholePictures } as const;
