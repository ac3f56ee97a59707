import { stillPictures } from './still-picture';

export const tiff = stillPictures<{ depth: '8' | '16' }>(
  (picture) => picture.withIccProfile('srgb').tiff({ compression: 'deflate', predictor: 'horizontal' }),
  ({ depth }) => depth === '16',
);
