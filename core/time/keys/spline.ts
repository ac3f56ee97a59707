/**
 * Slopes of the cubic spline with continuous curvature through points on a circle.
 *
 * With interval lengths hᵢ and secants δᵢ the slopes solve
 *   mᵢ₋₁/hᵢ₋₁ + 2 mᵢ (1/hᵢ₋₁ + 1/hᵢ) + mᵢ₊₁/hᵢ = 3 (δᵢ₋₁/hᵢ₋₁ + δᵢ/hᵢ)
 * (de Boor, A Practical Guide to Splines, ch. IV), cyclically; the corner terms are taken in by the
 * Sherman–Morrison formula.
 *
 * @param h lengths of the intervals, all > 0; interval i goes from point i to the next one
 * @param rise changes of value over them
 */
export function periodicSlopes(h: readonly number[], rise: readonly number[]): number[] {
  const n = h.length;
  if (n === 1) return [rise[0] / h[0]];
  if (n === 2) {
    // Both neighbours of a point are the same point: two equations in two unknowns.
    const a = 1 / h[0] + 1 / h[1];
    const r = 3 * (rise[0] / h[0] ** 2 + rise[1] / h[1] ** 2);
    return [r / (3 * a), r / (3 * a)];
  }
  const before = (i: number) => (i + n - 1) % n;
  const diagonal = h.map((_, i) => 2 * (1 / h[before(i)] + 1 / h[i]));
  const right = h.map((_, i) => 3 * (rise[before(i)] / h[before(i)] ** 2 + rise[i] / h[i] ** 2));
  const corner = 1 / h[n - 1];
  const gamma = -diagonal[0];
  const d = [...diagonal];
  d[0] -= gamma;
  d[n - 1] -= (corner * corner) / gamma;
  const off = h.slice(0, n - 1).map((x) => 1 / x);
  const u = new Array<number>(n).fill(0);
  u[0] = gamma;
  u[n - 1] = corner;
  const x = tridiagonal(off, d, right);
  const z = tridiagonal(off, d, u);
  const factor = (x[0] + (corner * x[n - 1]) / gamma) / (1 + z[0] + (corner * z[n - 1]) / gamma);
  return x.map((v, i) => v - factor * z[i]);
}

/**
 * Slopes of the spline through a run of points with given end slopes.
 *
 * @returns one slope per point, one more than intervals
 */
export function clampedSlopes(h: readonly number[], rise: readonly number[], first: number, last: number): number[] {
  const n = h.length;
  if (n === 1) return [first, last];
  const d: number[] = [];
  const right: number[] = [];
  const off: number[] = [];
  for (let i = 1; i < n; i++) {
    d.push(2 * (1 / h[i - 1] + 1 / h[i]));
    right.push(3 * (rise[i - 1] / h[i - 1] ** 2 + rise[i] / h[i] ** 2));
    if (i < n - 1) off.push(1 / h[i]);
  }
  right[0] -= first / h[0];
  right[n - 2] -= last / h[n - 1];
  return [first, ...tridiagonal(off, d, right), last];
}

/** Solves a symmetric tridiagonal system (Thomas algorithm). */
function tridiagonal(off: readonly number[], diagonal: readonly number[], right: readonly number[]): number[] {
  const n = diagonal.length;
  const c = new Array<number>(n);
  const x = new Array<number>(n);
  c[0] = (off[0] ?? 0) / diagonal[0];
  x[0] = right[0] / diagonal[0];
  for (let i = 1; i < n; i++) {
    const m = diagonal[i] - off[i - 1] * c[i - 1];
    c[i] = (off[i] ?? 0) / m;
    x[i] = (right[i] - off[i - 1] * x[i - 1]) / m;
  }
  for (let i = n - 2; i >= 0; i--) x[i] -= c[i] * x[i + 1];
  return x;
}

/**
 * Slope at a point between two intervals that keeps a cubic Hermite curve monotonic where its points are, with extrema
 * at points only (Steffen, A simple method for monotonic interpolation in one dimension, Astronomy and Astrophysics
 * 239, 1990, eqs. 7 to 11).
 *
 * @param h0 length of the interval before, > 0
 * @param h1 length of the interval after, > 0
 * @param rise0 change of value over the interval before
 * @param rise1 change of value over the interval after
 */
export function boundedSlope(h0: number, h1: number, rise0: number, rise1: number): number {
  const [s0, s1] = [rise0 / h0, rise1 / h1];
  if (!(s0 * s1 > 0)) return 0;
  const parabola = (s0 * h1 + s1 * h0) / (h0 + h1);
  return Math.sign(s0) * Math.min(2 * Math.abs(s0), 2 * Math.abs(s1), Math.abs(parabola));
}

/**
 * Clamps a slope so that a cubic does not overshoot its ends: between 0 and three times the straight line's (Fritsch
 * and Carlson, Monotone piecewise cubic interpolation, SIAM J. Numer. Anal. 17, 1980, § 2).
 */
export function clampedSlope(slope: number, h: number, rise: number): number {
  const straight = rise / h;
  return slope * straight > 0 ? Math.sign(slope) * Math.min(Math.abs(slope), 3 * Math.abs(straight)) : 0;
}
