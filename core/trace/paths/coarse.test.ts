import { describe, expect, it } from 'vitest';
import { emptyLight, fillFrom, lightIn } from '../../develop/light';
import { COARSE, coarsePixel, coarseRow, coarseSize } from './coarse';
import { Exposure } from './exposure';
import { ball, pictureOf, settings, white } from '../fixture';
import { SUMS } from './tile-result';

describe('the picture of few pixels that comes first', () => {
  it('is made of first samples of pixels of the picture itself', () => {
    const size = { ...settings, width: 30, height: 19 };
    const exposure = new Exposure([pictureOf([{ mesh: ball() }], [white], { focalLength: 60 })], size);
    const coarse = coarseSize(30, 19);
    expect(coarse).toEqual({ width: 4, height: 3 });
    const { sums } = exposure.traced({ x: 0, y: 0, width: 30, height: 19 }, 1);
    for (let row = 0; row < coarse.height; row++) {
      const own = coarseRow(exposure, row, 30, 19);
      expect(own.length).toBe(SUMS * coarse.width);
      for (let i = 0; i < coarse.width; i++) {
        const at = SUMS * (coarsePixel(row, 19) * 30 + coarsePixel(i, 30));
        expect([...own.subarray(SUMS * i, SUMS * (i + 1))]).toEqual([...sums.subarray(at, at + SUMS)]);
      }
    }
    // The last pixel stands within the picture.
    expect(coarsePixel(3, 30)).toBe(3 * COARSE + COARSE / 2);
    expect(coarsePixel(3, 26)).toBe(25);
  });
  it('fills what has no light of its own, evenly between its pixels', () => {
    const pixel = (light: number) => [light, light, light, 1, 0, 1, 0, 0, light / 2, 0];
    const small = lightIn(Float64Array.from([...pixel(0), ...pixel(1)]), 2, 1);
    const large = emptyLight(8, 2);
    large.values.fill(9, 0, 4);
    fillFrom(small, large, (i) => i === 0);
    const row = (y: number) => Array.from({ length: 8 }, (_, x) => large.values[4 * (8 * y + x)]);
    expect(row(0)).toEqual([9, 0, 0.125, 0.375, 0.625, 0.875, 1, 1]);
    expect(row(1)).toEqual([0, 0, 0.125, 0.375, 0.625, 0.875, 1, 1]);
    expect(large.values[7]).toBe(1);
    expect(large.added[3 * 15 + 2]).toBe(0.5);
  });
});
