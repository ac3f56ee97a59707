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
  it('have further channels by name, in the order of the alphabet, as the layout wants them', () => {
    const layers = [
      { name: 'depth', channels: 'Z', values: Float32Array.of(7, 8) },
      { name: 'a_layer_with_a_name_beyond_31_letters', channels: 'XY', values: Float32Array.of(1, 2, 3, 4) },
    ];
    const file = writeExr(Float32Array.of(0.1, 0.2, 0.3, 1, 0.4, 0.5, 0.6, 1), 2, 1, layers);
    // Bit 10 of the version says that names may be long.
    expect(new DataView(file.buffer).getUint32(4, true)).toBe(2 | (1 << 10));
    const text = Buffer.from(file).toString('latin1');
    const names = [
      'A',
      'B',
      'G',
      'R',
      'a_layer_with_a_name_beyond_31_letters.X',
      'a_layer_with_a_name_beyond_31_letters.Y',
      'depth.Z',
    ];
    const at = names.map((n) => text.indexOf(`\0${n}\0`, text.indexOf('chlist')));
    // The first stands behind the size of the list.
    expect(at.slice(1)).toEqual([...at.slice(1)].sort((a, b) => a - b));
    expect(Math.min(...at.slice(1))).toBeGreaterThan(0);
    const data = new Float32Array(file.buffer.slice(file.length - 4 * 2 * names.length));
    expect([...data.subarray(8)]).toEqual([1, 3, 2, 4, 7, 8]);
  });
  it.each(['half', 'float'] as const)('packed and in %s precision are read by another library', (precision) => {
    const [width, height] = [37, 35];
    const values = Float32Array.from({ length: 4 * width * height }, (_, i) => ((i * 7919) % 1000) / 64 - 3);
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    const file = writeExr(values, width, height, [], { precision, packed: true });
    const read = loader.parse(file.buffer) as { data: Float32Array };
    for (let y = 0; y < height; y++)
      for (let k = 0; k < 4 * width; k++)
        expect(read.data[4 * width * (height - 1 - y) + k]).toBe(values[4 * width * y + k]);
  });
  it('in half precision keep what is too bright as the brightest there is', () => {
    const file = writeExr(Float32Array.of(1e6, Infinity, -1e6, 1), 1, 1, [], { precision: 'half' });
    const last = new DataView(file.buffer, file.length - 8);
    // A, B, G, R.
    expect([0, 2, 4, 6].map((at) => last.getUint16(at, true))).toEqual([0x3c00, 0xfbff, 0x7bff, 0x7bff]);
  });
});
