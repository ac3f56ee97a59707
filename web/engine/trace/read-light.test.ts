import { execFileSync } from 'node:child_process';
import { readRadiance, writeRadiance } from '@maypole/core/files/radiance';
import { HDRLoader } from 'three/examples/jsm/loaders/HDRLoader.js';
import { FloatType } from 'three';
import { describe, expect, it } from 'vitest';
import { exrSize, readLight } from './read-light';

const [WIDTH, HEIGHT] = [24, 12];

/** Red grows to the right, green downwards, blue is small. */
const colour = (x: number, y: number) => [x / 4, 3 * y, 0.01];

/** Written by Debian’s ffmpeg. */
function exr(values: (x: number, y: number) => number[], format = 'float'): Uint8Array {
  // Planes of green, blue and red.
  const planes = new Float32Array(3 * WIDTH * HEIGHT);
  [1, 2, 0].forEach((k, plane) => {
    for (let y = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) planes[(plane * HEIGHT + y) * WIDTH + x] = values(x, y)[k];
  });
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'gbrpf32le', '-s', `${WIDTH}x${HEIGHT}`, '-i', '-'];
  const out = ['-frames:v', '1', '-c:v', 'exr', '-format', format, '-compression', 'zip16', '-f', 'image2pipe', '-'];
  const input = Buffer.from(planes.buffer);
  return new Uint8Array(execFileSync('ffmpeg', ['-v', 'error', ...raw, ...out], { input, maxBuffer: 1e8 }));
}

describe('pictures of light', () => {
  it('in OpenEXR written by ffmpeg, whole and half floats, are read as they are and upright', () => {
    for (const format of ['float', 'half']) {
      const bytes = exr(colour, format);
      expect(exrSize(bytes)).toEqual([WIDTH, HEIGHT]);
      const { light, mended } = readLight(bytes);
      expect([light.width, light.height, mended]).toEqual([WIDTH, HEIGHT, '']);
      for (const [x, y] of [
        [0, 0],
        [23, 0],
        [5, 11],
        [17, 6],
      ])
        colour(x, y).forEach((c, k) => {
          // Half floats have eleven bits.
          expect(Math.abs(light.values[3 * (y * WIDTH + x) + k] - c)).toBeLessThan(c / 1000 + 1e-6);
        });
    }
  });
  it('with values that are no light are mended, and it is said how many were', () => {
    const { light, mended } = readLight(exr((x, y) => (y > 0 ? [1, 1, 1] : x === 3 ? [NaN, -2, 1] : [1e6, 0, 0])));
    expect([...light.values.subarray(9, 12)]).toEqual([0, 0, 1]);
    expect(light.values[0]).toBe(65_504);
    expect(mended).toBe(
      'Of its 864 values 1 values that are no numbers were made 0, 1 below 0 were made 0, 23 beyond 65504 were made 65504',
    );
  });
  it('in Radiance, as they are kept, are read the same by the reader of another library', () => {
    const values = new Float32Array(3 * WIDTH * HEIGHT);
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) values.set(colour(x, y), 3 * (y * WIDTH + x));
    const bytes = writeRadiance({ width: WIDTH, height: HEIGHT, values });
    const loader = new HDRLoader();
    loader.setDataType(FloatType);
    const theirs = loader.parse(bytes.slice().buffer) as unknown as { width: number; data: Float32Array };
    const ours = readRadiance(bytes);
    expect(theirs.width).toBe(ours.width);
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const most = Math.max(...ours.values.subarray(3 * i, 3 * i + 3), 1e-9);
      // That library takes the lower end of a step, and not its middle.
      for (let k = 0; k < 3; k++)
        expect(Math.abs(theirs.data[4 * i + k] - ours.values[3 * i + k])).toBeLessThanOrEqual(most / 200);
    }
  });
  it('that are none, are cut, or are too large, are refused in a sentence before anything is made of them', () => {
    const good = exr(colour);
    expect(() => readLight(new Uint8Array(0))).toThrow('empty');
    expect(() => readLight(new TextEncoder().encode('hello'))).toThrow('use Radiance (.hdr) or OpenEXR (.exr)');
    expect(() => readLight(good.slice(0, 400))).toThrow('OpenEXR picture cannot be read');
    const huge = good.slice();
    const text = Buffer.from(huge).toString('latin1');
    const at = text.indexOf('dataWindow') + 'dataWindow\0box2i\0'.length + 4;
    new DataView(huge.buffer).setInt32(at + 8, 99_999, true);
    new DataView(huge.buffer).setInt32(at + 12, 99_999, true);
    expect(() => readLight(huge)).toThrow('100000 × 100000 is more than can be taken in');
  });
});
