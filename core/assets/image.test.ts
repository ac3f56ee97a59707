import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { readPixel, brightnessOf } from '../pattern/picture';
import { MOST_IMAGE_SIDE, readImage, writeImage } from './image';

/** Written by another library of the registry. */
function png(width: number, height: number, rgba: number[], options: object = {}): Uint8Array {
  const image = new PNG({ width, height });
  // A buffer of its own: that library looks at what lies beneath.
  image.data = Buffer.from(Uint8Array.from(rgba).buffer);
  return new Uint8Array(PNG.sync.write(image, options));
}

const four = [255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 255, 255, 255, 128];

describe('pictures in colour', () => {
  it('written elsewhere are read as they are: colours, grey, with and without alpha, 8 and 16 bits', () => {
    expect([...readImage(png(2, 2, four)).values]).toEqual(four);
    const opaque = readImage(png(2, 2, four, { colorType: 2 })).values;
    expect([...opaque.subarray(0, 4)]).toEqual([255, 0, 0, 255]);
    const grey = readImage(png(2, 1, [200, 200, 200, 255, 10, 10, 10, 255], { colorType: 0 }));
    expect([...grey.values]).toEqual([200, 200, 200, 255, 10, 10, 10, 255]);
    // Sixteen bits are given as such: 257 times a byte is the same share.
    const wide = new Uint8Array(Uint16Array.from(four, (x) => 257 * x).buffer);
    const deep = readImage(png(2, 2, [...wide], { bitDepth: 16 }));
    expect([...deep.values]).toEqual(four);
  });
  it('written here are read elsewhere, to the pixel', () => {
    const pixels = Uint8Array.from({ length: 5 * 3 * 4 }, (_, i) => (37 * i) % 256);
    const read = PNG.sync.read(Buffer.from(writeImage(pixels, 5, 3)));
    expect([read.width, read.height]).toEqual([5, 3]);
    expect(Uint8Array.from(read.data)).toEqual(pixels);
  });
  it('too large, cut and damaged ones are refused in words, without being unpacked', () => {
    const good = png(2, 2, four);
    const huge = good.slice();
    new DataView(huge.buffer).setUint32(16, 100_000);
    expect(() => readImage(huge)).toThrow(`the most is ${MOST_IMAGE_SIDE} a side`);
    expect(() => readImage(good.slice(0, 20))).toThrow('not a picture in PNG');
    expect(() => readImage(good.slice(0, 45))).toThrow('damaged');
    expect(() => readImage(Uint8Array.of(1, 2, 3))).toThrow('not a picture in PNG');
  });
  it('are read between their pixels in light, and go on beyond their edges', () => {
    const image = readImage(png(2, 2, four));
    // Pixel centres: the first row is above.
    expect(readPixel(image, 0.25, 0.75).map((x) => Number(x.toFixed(6)))).toEqual([1, 0, 0, 1]);
    expect(readPixel(image, 1.25, -0.25).map((x) => Number(x.toFixed(6)))).toEqual([1, 0, 0, 1]);
    expect(readPixel(image, 0.5, 0.75).map((x) => Number(x.toFixed(6)))).toEqual([0.5, 0.5, 0, 1]);
    // Half the light of white is seen at 188 of 255 (IEC 61966-2-1).
    expect(brightnessOf([0.5, 0.5, 0.5])).toBeCloseTo(188 / 255, 2);
  });
});
