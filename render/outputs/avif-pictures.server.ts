import type { Quality } from './movie';
import { stillPictures } from './still-picture';

const HOW = { preview: 45, good: 70, lossless: 95 } as const;

export const avifPictures = stillPictures<{ quality: Quality }>((picture, { quality }) =>
  picture.withIccProfile('srgb').avif({ quality: HOW[quality], effort: 3, chromaSubsampling: '4:4:4' }),
);
