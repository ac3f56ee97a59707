import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { FloatType } from 'three';
import { describe, expect, it } from 'vitest';
import { writeExr } from './exr';

describe('OpenEXR files written here', () => {
  it('are read by another library as they are: light beyond 1, below 0 and very small, and alpha', () => {
    const [width, height] = [5, 3];
    const values = Float32Array.from({ length: 4 * width * height }, (_, i) => (i - 20) * 1.7 ** (i % 9));
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    const read = loader.parse(writeExr(values, width, height).buffer) as {
      width: number;
      height: number;
      data: Float32Array;
    };
    expect([read.width, read.height]).toEqual([width, height]);
    // It turns rows over.
    for (let y = 0; y < height; y++)
      for (let k = 0; k < 4 * width; k++)
        expect(read.data[4 * width * (height - 1 - y) + k]).toBe(values[4 * width * y + k]);
  });
});
