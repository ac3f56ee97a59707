import { hermite, hermiteSlope } from '../maths/hermite';
import { periodicSlopes } from './keys/spline';

/**
 * A hand-drawn cycle: a closed cubic spline through even samples 0…1. Between samples it may overshoot slightly.
 *
 * @param heights at least one; the last leads into the first
 */
export function drawnCurve(heights: readonly number[]): { value: (p: number) => number; slope: (p: number) => number } {
  const n = heights.length;
  const slopes = periodicSlopes(
    heights.map(() => 1),
    heights.map((v, i) => heights[(i + 1) % n] - v),
  );
  const part = (p: number) => {
    const i = Math.min(n - 1, Math.floor(p * n));
    const j = (i + 1) % n;
    return { x: p * n - i, from: heights[i], rise: heights[j] - heights[i], m0: slopes[i], m1: slopes[j] };
  };
  return {
    value(p) {
      const { x, from, rise, m0, m1 } = part(p);
      return hermite(from, rise, m0, m1, x);
    },
    slope(p) {
      const { x, rise, m0, m1 } = part(p);
      return n * hermiteSlope(rise, m0, m1, x);
    },
  };
}
