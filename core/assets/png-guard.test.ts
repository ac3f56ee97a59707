import { deflateSync } from 'node:zlib';
import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { readImage, writeImage } from './image';

/** A chunk of PNG; its check is not looked at before its data is. */
function chunk(type: string, data: Uint8Array): Buffer {
  const head = Buffer.alloc(8);
  head.writeUInt32BE(data.length, 0);
  head.write(type, 4, 'latin1');
  return Buffer.concat([head, data, Buffer.alloc(4)]);
}
const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
const head = (width: number, height: number) => {
  const data = Buffer.alloc(13);
  data.writeUInt32BE(width, 0);
  data.writeUInt32BE(height, 4);
  data.set([8, 6, 0, 0, 0], 8);
  return chunk('IHDR', data);
};

describe('a picture in PNG', () => {
  it('of one pixel that carries 256 MB of packed data is refused, by what its size can need', () => {
    const bomb = Buffer.concat([
      signature,
      head(1, 1),
      chunk('IDAT', deflateSync(Buffer.alloc(2 ** 28))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    expect(bomb.length).toBeLessThan(400_000);
    expect(() => readImage(bomb)).toThrow('1 × 1, and holds far more than that can need');
  });
  it('with a profile or a text that unpacks to as much is read without it', () => {
    const plain = writeImage(Uint8Array.of(10, 20, 30, 255), 1, 1);
    const packed = deflateSync(Buffer.alloc(2 ** 26));
    const more = Buffer.concat([
      plain.subarray(0, 33),
      chunk('iCCP', Buffer.concat([Buffer.from('name\0\0', 'latin1'), packed])),
      chunk('zTXt', Buffer.concat([Buffer.from('text\0\0', 'latin1'), packed])),
      plain.subarray(33),
    ]);
    expect(readImage(more).values).toEqual(Uint8Array.of(10, 20, 30, 255));
  });
  it('of any kind is what an independent writer has put into it, and cut it is told to break off', () => {
    for (const [width, height] of [
      [1, 1],
      [37, 5],
      [300, 211],
    ]) {
      const png = new PNG({ width, height });
      for (let i = 0; i < png.data.length; i++) png.data[i] = (i * 2654435761) >>> 24;
      const file = PNG.sync.write(png);
      expect(Buffer.from(readImage(file).values).equals(png.data)).toBe(true);
      expect(() => readImage(file.subarray(0, file.length - 20))).toThrow('breaks off');
    }
  });
});
