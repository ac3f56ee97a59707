import { stillPictures } from './still-picture';

export const jpeg = stillPictures<{ quality: number }>((picture, { quality }) =>
  picture.withIccProfile('srgb').jpeg({ quality, chromaSubsampling: '4:4:4' }),
);
