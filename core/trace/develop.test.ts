import { describe, expect, it } from 'vitest';
import { viewTransform } from '../scene/view-transform';
import { developed, lightIn } from './develop';
import { camera } from './fixture';

const scene = { camera: { ...camera, exposure: 2 }, backdrop: { type: 'colour', colour: '#3A86B7' } } as const;
/** Two pixels of four samples: one all covered by a grey, one half. */
const sums = Float64Array.of(0.4, 0.4, 0.4, 4, 0, 0.2, 0.2, 0.2, 2, 0);
const where = { tile: { x: 0, y: 0, width: 2, height: 1 }, width: 2, height: 1, scene };

describe('traced light as it is shown', () => {
  it('is light times exposure through the view transform, over the backdrop by what it covers', () => {
    const shown = viewTransform(0.2, 0.2, 0.2).map((x) => 255 * x);
    const pixels = developed(sums, 4, where);
    for (let k = 0; k < 3; k++) {
      expect(Math.abs(pixels[k] - shown[k])).toBeLessThanOrEqual(1);
      const behind = [0x3a, 0x86, 0xb7][k];
      expect(Math.abs(pixels[4 + k] - (shown[k] + behind) / 2)).toBeLessThanOrEqual(1);
    }
    expect([pixels[3], pixels[7]]).toEqual([255, 255]);
  });
  it('leaves the backdrop exact where nothing is, and out where it is not wanted', () => {
    expect([...developed(new Float64Array(10), 4, where)]).toEqual([0x3a, 0x86, 0xb7, 255, 0x3a, 0x86, 0xb7, 255]);
    const clear = developed(sums, 4, { ...where, clear: true });
    expect([clear[3], clear[7]]).toEqual([255, 128]);
    // Not premultiplied: what is half there has its whole colour.
    expect(Math.abs(clear[4] - clear[0])).toBeLessThanOrEqual(1);
  });
  it('as light it is the mean of its samples, premultiplied and before exposure', () => {
    expect([...lightIn(sums, 4)].map((x) => Number(x.toFixed(6)))).toEqual([0.1, 0.1, 0.1, 1, 0.05, 0.05, 0.05, 0.5]);
  });
});
