import Color from 'colorjs.io';
import { describe, expect, it } from 'vitest';
import { blackBody } from './temperature';

const xy = (rgb: readonly number[]) => {
  const [x, y, z] = new Color('srgb-linear', [...rgb] as [number, number, number]).to('xyz-d65').coords as number[];
  return [x / (x + y + z), y / (x + y + z)];
};

describe('colour temperature', () => {
  // Chromaticities of the Planckian locus: Wyszecki & Stiles, Color Science, table 1(3.11); illuminant A is 2856 K (CIE 15).
  it.each([
    [2856, 0.4476, 0.4074],
    [4000, 0.3805, 0.3768],
    [5000, 0.3451, 0.3516],
    [6500, 0.3135, 0.3237],
    [10000, 0.2807, 0.2884],
  ])('%i K lies on the locus of black bodies', (kelvin, x, y) => {
    const [a, b] = xy(blackBody(kelvin));
    expect(Math.hypot(a - x, b - y)).toBeLessThan(0.004);
  });
  it('warm is red, cold is blue, and the brightest component is 1', () => {
    const [warm, cold] = [blackBody(2000), blackBody(15_000)];
    expect(warm[0]).toBe(1);
    expect(warm[2]).toBeLessThan(0.2);
    expect(cold[2]).toBe(1);
    expect(blackBody(1)).toEqual(blackBody(1667));
    expect(blackBody(1e9)).toEqual(blackBody(25_000));
  });
});
