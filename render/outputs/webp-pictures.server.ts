import type { Quality } from './movie';
import { stillPictures } from './still-picture';

const HOW = {
  preview: { quality: 60 },
  good: { quality: 90, smartSubsample: true },
  lossless: { lossless: true, effort: 2, exact: true },
} as const;

export const webpPictures = stillPictures<{ quality: Quality }>((picture, { quality }) =>
  picture.withIccProfile('srgb').webp(HOW[quality]),
);
