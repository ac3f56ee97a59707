import { deepPicture, sharpOf, stillPictures } from './still-picture';

export const tiff = stillPictures<{ depth: '8' | '16' }>(
  (picture) => picture.tiff({ compression: 'deflate', predictor: 'horizontal' }),
  async (file, { depth }) => (depth === '16' ? deepPicture(file) : (await sharpOf(file)).withIccProfile('srgb')),
);
