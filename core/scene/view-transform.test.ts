import { describe, expect, it } from 'vitest';
import { lightToDisplay } from '../maths/srgb';
import { lightShownAs, viewTransform } from './view-transform';

describe('light to display values (Khronos PBR Neutral, specification of 2024)', () => {
  it('takes 0.04 off what is neither dark nor bright, and leaves its colour', () => {
    for (const c of [
      [0.1, 0.3, 0.5],
      [0.7, 0.08, 0.2],
    ] as const)
      viewTransform(c[0], c[1], c[2]).forEach((x, k) => expect(x).toBeCloseTo(lightToDisplay(c[k] - 0.04), 12));
    // A dark grey x is 6.25 x².
    expect(viewTransform(0.04, 0.04, 0.04)[0]).toBeCloseTo(lightToDisplay(6.25 * 0.04 ** 2), 12);
  });
  it('never goes down as light goes up, begins at black and ends at white', () => {
    let before = -1;
    for (let x = 0; x < 40; x += 0.05) {
      const [r, g, b] = viewTransform(x, 0.6 * x, 0.2 * x);
      expect(r).toBeGreaterThanOrEqual(before);
      for (const c of [r, g, b]) expect(c >= 0 && c <= 1).toBe(true);
      before = r;
    }
    expect(viewTransform(0, 0, 0)).toEqual([0, 0, 0]);
    expect(Math.min(...viewTransform(1e6, 1e6, 1e6))).toBeGreaterThan(0.99);
  });
  it('is undone for what is not rolled off: a colour is shown as itself', () => {
    for (const shown of [
      [0.1, 0.1, 0.1],
      [0.02, 0.5, 0.4],
      [0.75, 0.6, 0.7],
      [0, 0, 0],
    ])
      viewTransform(...lightShownAs(shown)).forEach((x, k) => expect(x).toBeCloseTo(shown[k], 6));
  });
});
