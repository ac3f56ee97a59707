import { cubicBezier } from './bezier';
import { hermite, hermiteSlope } from '../../maths/hermite';
import { sortKeys, USUAL_EASE, usualTangent, type KeyDoc } from './key';
import { boundedSlope, clampedSlopes, clampedSlope, periodicSlopes } from './spline';

/** A segment of the circle: from `at` on for `length`, both as shares of the loop. */
interface Piece {
  readonly at: number;
  readonly length: number;
  readonly start: number;
  readonly rise: number;
  /** At x in 0…1: the change of value since its start, and its slope per whole segment. */
  readonly run: (x: number) => { value: number; slope: number };
}

/** Prepared keys: value and slope per loop at 0 ≤ p < 1. */
export interface Track {
  at(p: number): { value: number; slope: number };
}

/**
 * Keys on a circle. Hold and linear are STEP and LINEAR of glTF 2.0, 'ease' is cubic-bezier(e₀, 0, 1 − e₁, 1) of CSS,
 * 'free' a cubic Bézier curve in time and value, 'smooth' a cubic Hermite segment that never overshoots its keys,
 * 'spline' one whose slopes make the whole run of such keys a cubic spline.
 *
 * @param adds additional gain from the last key to the first one of the next loop
 */
export function trackOf(unsorted: readonly KeyDoc[], adds: number): Track {
  const keys = sortKeys(unsorted);
  const n = keys.length;
  const next = (i: number): KeyDoc =>
    i + 1 < n ? keys[i + 1] : { ...keys[0], at: keys[0].at + 1, value: keys[0].value + adds };
  const slopes = smoothSlopes(keys, next);
  const pieces: Piece[] = [];
  keys.forEach((key, i) => {
    const to = next(i);
    const length = to.at - key.at;
    // Two keys at one position are a jump, with no segment between.
    if (length <= 0) return;
    pieces.push({ at: key.at, length, start: key.value, rise: to.value - key.value, run: segment(key, to, slopes[i]) });
  });
  const last = pieces[pieces.length - 1];
  return {
    at(p) {
      let piece = last;
      let x: number;
      let start: number;
      if (p < pieces[0].at) {
        // The last segment of the previous loop reaches across the seam.
        x = (p + 1 - last.at) / last.length;
        start = last.start - adds;
      } else {
        let low = 0;
        let high = pieces.length - 1;
        while (low < high) {
          const middle = (low + high + 1) >> 1;
          if (pieces[middle].at <= p) low = middle;
          else high = middle - 1;
        }
        piece = pieces[low];
        x = (p - piece.at) / piece.length;
        start = piece.start;
      }
      const { value, slope } = piece.run(x);
      return { value: start + value, slope: slope / piece.length };
    },
  };
}

/** What a segment adds to its start at x in 0…1, and the slope per whole segment. */
function segment(key: KeyDoc, to: KeyDoc, slope: readonly [number, number] | undefined): Piece['run'] {
  const rise = to.value - key.value;
  const length = to.at - key.at;
  switch (key.to) {
    case 'hold':
      return () => ({ value: 0, slope: 0 });
    case 'linear':
      return (x) => ({ value: rise * x, slope: rise });
    case 'ease': {
      const [e0, e1] = key.ease ?? USUAL_EASE;
      return (x) => {
        const { value, slope: s } = cubicBezier(e0, 0, 1 - e1, 1, x);
        return { value: rise * value, slope: rise * s };
      };
    }
    case 'free': {
      const [x1, y1] = key.out ?? usualTangent(key, to);
      const [x2, y2] = to.in ?? usualTangent(to, key);
      return (x) => cubicBezier(x1 / length, y1, 1 + x2 / length, rise + y2, x, rise);
    }
    case 'smooth':
    case 'spline': {
      const [m0, m1] = slope!.map((m) => m * length);
      return (x) => ({ value: hermite(0, rise, m0, m1, x), slope: hermiteSlope(rise, m0, m1, x) });
    }
  }
}

/** Slopes per loop at both ends of each smooth or spline segment. */
function smoothSlopes(keys: readonly KeyDoc[], next: (i: number) => KeyDoc): ([number, number] | undefined)[] {
  const n = keys.length;
  const lengths = keys.map((k, i) => next(i).at - k.at);
  const rises = keys.map((k, i) => next(i).value - k.value);
  const before = (i: number) => (i + n - 1) % n;
  const after = (i: number) => (i + 1) % n;
  const is = (i: number, way: 'smooth' | 'spline') => keys[i].to === way && lengths[i] > 0;
  const out = new Array<[number, number] | undefined>(n).fill(undefined);

  /** Slope at a key where a segment meets one of another kind. */
  const slopeOf = (i: number, end: 'start' | 'end'): number => {
    if (is(i, 'smooth') || is(i, 'spline')) {
      const [a, b] = end === 'start' ? [before(i), i] : [i, after(i)];
      return lengths[a] > 0 && lengths[b] > 0 ? boundedSlope(lengths[a], lengths[b], rises[a], rises[b]) : 0;
    }
    return endSlope(keys, next, i, lengths, rises, end);
  };

  for (let i = 0; i < n; i++)
    if (is(i, 'smooth'))
      out[i] = [
        clampedSlope(slopeOf(before(i), 'end'), lengths[i], rises[i]),
        clampedSlope(slopeOf(after(i), 'start'), lengths[i], rises[i]),
      ];

  if (keys.every((_, i) => is(i, 'spline'))) {
    const m = periodicSlopes(lengths, rises);
    return keys.map((_, i) => [m[i], m[after(i)]]);
  }
  for (let i = 0; i < n; i++) {
    if (!is(i, 'spline') || is(before(i), 'spline')) continue;
    // A run of splines between other segments takes their end slopes.
    const run: number[] = [];
    for (let j = i; is(j % n, 'spline') && run.length < n; j++) run.push(j % n);
    const m = clampedSlopes(
      run.map((j) => lengths[j]),
      run.map((j) => rises[j]),
      slopeOf(before(i), 'end'),
      slopeOf(after(run[run.length - 1]), 'start'),
    );
    run.forEach((j, k) => (out[j] = [m[k], m[k + 1]]));
  }
  return out;
}

/** Slope per loop at an end of a segment that is not smooth. */
function endSlope(
  keys: readonly KeyDoc[],
  next: (i: number) => KeyDoc,
  i: number,
  lengths: readonly number[],
  rises: readonly number[],
  end: 'start' | 'end',
): number {
  if (lengths[i] <= 0) return 0;
  const key = keys[i];
  if (key.to === 'linear') return rises[i] / lengths[i];
  if (key.to === 'free') {
    const run = segment(key, next(i), undefined);
    return run(end === 'start' ? 0 : 1).slope / lengths[i];
  }
  return 0;
}
