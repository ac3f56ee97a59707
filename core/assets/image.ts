import { convertIndexedToRgb, decode, encode } from 'fast-png';
import { guardedPng } from './png-guard';
import { FileTrouble } from './trouble';

/** A colour picture: sRGB with straight alpha, 4 bytes per pixel, rows from the top. */
export interface Image {
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
}

/** Longest side of a colour picture, in pixels. */
export const MOST_IMAGE_SIDE = 4096;

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

export function isPng(bytes: Uint8Array): boolean {
  return SIGNATURE.every((b, i) => bytes[i] === b);
}

/** Decodes a PNG (W3C Portable Network Graphics, third edition). @throws FileTrouble in words for the user */
export function readImage(bytes: Uint8Array): Image {
  if (!isPng(bytes) || bytes.length < 33) throw new FileTrouble('This is not a picture in PNG.');
  const head = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // Checked before decoding: a few bytes can claim a huge picture.
  const [width, height] = [head.getUint32(16), head.getUint32(20)];
  if (width < 1 || height < 1 || width > MOST_IMAGE_SIDE || height > MOST_IMAGE_SIDE)
    throw new FileTrouble(`A picture of ${width} × ${height} cannot be used; the most is ${MOST_IMAGE_SIDE} a side.`);
  const guarded = guardedPng(bytes);
  let png;
  try {
    png = decode(guarded);
  } catch {
    throw new FileTrouble('This picture is damaged: it cannot be unpacked. Save it again as PNG.');
  }
  const data: ArrayLike<number> = png.palette ? convertIndexedToRgb(png) : png.data;
  const channels = png.palette ? png.palette[0].length : png.channels;
  const most = png.palette ? 255 : 2 ** png.depth - 1;
  const values = new Uint8Array(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    const at = (k: number) => Math.round((255 * data[channels * i + k]) / most);
    const grey = channels < 3;
    for (let k = 0; k < 3; k++) values[4 * i + k] = at(grey ? 0 : k);
    values[4 * i + 3] = channels === 2 || channels === 4 ? at(channels - 1) : 255;
  }
  return { width, height, values };
}

/**
 * Encodes a PNG.
 *
 * @param pixels red, green, blue and alpha per pixel, 0…255, rows from the top
 */
export function writeImage(pixels: Uint8Array, width: number, height: number): Uint8Array<ArrayBuffer> {
  return encode({ width, height, data: pixels, channels: 4 }) as Uint8Array<ArrayBuffer>;
}
