import Color from 'colorjs.io';
import { describe, expect, it } from 'vitest';
import { filmColour, filmReflectance } from '../finish/film';
import { colourOfSpectrum, matching, xyzToLinear } from './cie';

describe('colour matching', () => {
  it('is within 2 % of the largest value of the tables of CIE 1931 (values from memory of the published table)', () => {
    // CIE 015:2018, 2° observer.
    const table: readonly [number, number, number, number][] = [
      [420, 0.1344, 0.004, 0.6456],
      [450, 0.3362, 0.038, 1.7721],
      [480, 0.0956, 0.139, 0.813],
      [520, 0.0633, 0.71, 0.0782],
      [550, 0.4334, 0.995, 0.0087],
      [580, 0.9163, 0.87, 0.0017],
      [600, 1.0622, 0.631, 0.0008],
      [650, 0.2835, 0.107, 0],
    ];
    for (const [wave, ...exact] of table)
      matching(wave).forEach((m, k) => expect(Math.abs(m - exact[k])).toBeLessThan(0.035));
  });
  it('a grey surface is grey, and XYZ becomes sRGB as another library has it', () => {
    colourOfSpectrum(() => 0.3).forEach((c) => expect(c).toBeCloseTo(0.3, 10));
    const own = xyzToLinear([0.4, 0.3, 0.2]);
    const theirs = new Color('xyz-d65', [0.4, 0.3, 0.2]).to('srgb-linear').coords;
    own.forEach((c, k) => expect(c).toBeCloseTo(theirs[k]!, 3));
  });
});

describe('a thin film', () => {
  it('half a wave thick is as if it were not there, a quarter wave of √n takes all away (Hecht, Optics, 9.7)', () => {
    const bare = ((1 - 1.52) / (1 + 1.52)) ** 2;
    expect(filmReflectance(1.38, 1.52, 550 / 2 / 1.38, 550, 1)).toBeCloseTo(bare, 10);
    // Magnesium fluoride on glass, a quarter wave at 550 nm, leaves about 1.3 %.
    expect(filmReflectance(1.38, 1.52, 550 / 4 / 1.38, 550, 1)).toBeCloseTo(0.0126, 3);
    expect(filmReflectance(Math.sqrt(1.52), 1.52, 550 / 4 / Math.sqrt(1.52), 550, 1)).toBeCloseTo(0, 10);
  });
  it('a film in the air that is very thin is black, and reflects no more than all', () => {
    expect(filmReflectance(1.33, 1, 2, 550, 1)).toBeLessThan(0.002);
    for (let c = 0.02; c <= 1; c += 0.07)
      for (let d = 0; d < 900; d += 90) {
        const r = filmReflectance(1.6, 1.5, d, 560, c);
        expect(r).toBeGreaterThanOrEqual(0);
        expect(r).toBeLessThanOrEqual(1);
      }
    // Grazing light is thrown back whole.
    expect(filmReflectance(1.6, 1.5, 300, 560, 1e-4)).toBeGreaterThan(0.99);
  });
  it('of soap goes through the colours in the order in which a draining film shows them: white, yellow, magenta, blue', () => {
    const seen = (d: number) => filmColour(1.33, 1, d, 1);
    const [white, yellow, blue] = [seen(95), seen(140), seen(225)];
    expect(Math.max(...white) / Math.min(...white)).toBeLessThan(1.35);
    expect(yellow[2]).toBeLessThan(0.75 * yellow[0]);
    expect(blue[2]).toBeGreaterThan(blue[0]);
  });
});
