import { describe, expect, it } from 'vitest';
import { radicalInverse, spread } from './spread';

/** The star discrepancy of points in a square, to the letter: over all boxes from the corner to their places. */
function starDiscrepancy(points: readonly (readonly [number, number])[]): number {
  const xs = [...points.map((p) => p[0]), 1];
  const ys = [...points.map((p) => p[1]), 1];
  let most = 0;
  for (const x of xs)
    for (const y of ys) {
      const [open, shut] = [
        points.filter((p) => p[0] < x && p[1] < y).length,
        points.filter((p) => p[0] <= x && p[1] <= y).length,
      ].map((n) => n / points.length);
      most = Math.max(most, x * y - open, shut - x * y);
    }
  return most;
}

describe('points that are spread', () => {
  it('are the digits behind the point: J. G. van der Corput, 1935', () => {
    expect([1, 2, 3, 4, 5, 6, 7].map((i) => radicalInverse(i, 2))).toEqual([
      0.5, 0.25, 0.75, 0.125, 0.625, 0.375, 0.875,
    ]);
    expect([1, 2, 3, 4].map((i) => radicalInverse(i, 3))).toEqual([1 / 3, 2 / 3, 1 / 9, 1 / 3 + 1 / 9]);
  });
  it.each([12, 24, 60, 150])('leave no more than Halton’s bound in a square: %i points', (n) => {
    const points = Array.from({ length: n }, (_, i) => [radicalInverse(i + 1, 2), radicalInverse(i + 1, 3)] as const);
    // H. Niederreiter, Random Number Generation and Quasi-Monte Carlo Methods, 1992, theorem 3.6.
    const factors = [2, 3].map((b) => ((b - 1) / (2 * Math.log(b))) * Math.log(n) + (b + 1) / 2);
    expect(starDiscrepancy(points)).toBeLessThan(2 / n + (factors[0] * factors[1]) / n);
  });
  it('are more even than chance, whatever the seed', () => {
    for (const seed of [0, 1, 7, 99_999]) {
      const u = spread(seed);
      const points = Array.from({ length: 60 }, (_, i) => [u(i, 0), u(i, 1)] as const);
      // Sixty points by chance leave 0.17 in the middle (B. Doerr, M. Gnewuch, M. Wahlström, 2010: near √(d/n)).
      expect(starDiscrepancy(points)).toBeLessThan(0.1);
    }
  });
  it('have every value by itself in each of 64 places once, beyond the bases too', () => {
    const u = spread(5);
    for (const j of [12, 13, 40, 300])
      for (const block of [0, 1]) {
        const places = Array.from({ length: 64 }, (_, i) => Math.floor(64 * u(64 * block + i, j)));
        expect(new Set(places).size).toBe(64);
      }
    // And they do not go along with each other.
    const along = [...Array(64).keys()].reduce((so, i) => so + (u(i, 12) - 0.5) * (u(i, 13) - 0.5), 0) / 64;
    expect(Math.abs(along) * 12).toBeLessThan(0.5);
  });
  it('are the same for the same seed', () => {
    expect(spread(3)(17, 4)).toBe(spread(3)(17, 4));
    expect(spread(3)(17, 4)).not.toBe(spread(4)(17, 4));
  });
});
