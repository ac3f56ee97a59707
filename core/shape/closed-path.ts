import { hermite } from '../maths/hermite';
import { periodicSlopes } from '../time/keys/spline';
import { cross, dot, type Vec3 } from '../maths/vec3';

/** Position and orientation on a closed path. */
export interface PathPlace {
  readonly point: [number, number, number];
  /** Unit vectors: tangent, and normal. */
  readonly tangent: [number, number, number];
  readonly normal: [number, number, number];
}

/** A closed curve in space, parameterised by arc length. */
export interface ClosedPath {
  /** Metres. */
  readonly length: number;
  /** At s metres; any real number, periodic. */
  at(s: number): PathPlace;
}

const SAMPLES = 1024;

/** The unit component of `v` perpendicular to the unit vector `t`; any perpendicular if there is none. */
export function squareTo(t: readonly number[], v: readonly number[]): [number, number, number] {
  const d = dot(t, v);
  const out: [number, number, number] = [v[0] - d * t[0], v[1] - d * t[1], v[2] - d * t[2]];
  const length = Math.hypot(...out);
  if (length > 1e-9) return [out[0] / length, out[1] / length, out[2] / length];
  const other = Math.abs(t[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0];
  return squareTo(t, other);
}

/** The closed spline through points, with centripetal parameterisation, which avoids loops. */
export function splineThrough(points: readonly Vec3[]): (u: number) => [number, number, number] {
  const n = points.length;
  const next = (i: number) => points[(i + 1) % n];
  const h = points.map((p, i) => Math.max(1e-6, Math.sqrt(Math.hypot(...next(i).map((x, k) => x - p[k])))));
  const total = h.reduce((a, b) => a + b, 0);
  const starts: number[] = [];
  h.reduce((sum, x) => (starts.push(sum), sum + x), 0);
  const slopes = [0, 1, 2].map((k) =>
    periodicSlopes(
      h,
      points.map((p, i) => next(i)[k] - p[k]),
    ),
  );
  return (u) => {
    const place = (u - Math.floor(u)) * total;
    let i = n - 1;
    while (i > 0 && starts[i] > place) i--;
    const x = (place - starts[i]) / h[i];
    return [0, 1, 2].map((k) => {
      const rise = next(i)[k] - points[i][k];
      const [m0, m1] = [slopes[k][i] * h[i], slopes[k][(i + 1) % n] * h[i]];
      return hermite(points[i][k], rise, m0, m1, x);
    }) as [number, number, number];
  };
}

/**
 * A closed curve made ready to travel. It is sampled at 1024 places, measured, and given frames
 * that turn as little as possible: rotation-minimising frames by double reflection (Wang, Jüttler,
 * Zheng & Liu, “Computation of rotation minimizing frames”, ACM TOG 27, 2008). Round a closed
 * curve such frames come back turned by some angle; that is taken off evenly along the way, so that
 * the frames close.
 *
 * @param curve a point for u, with period 1
 */
export function closedPath(curve: (u: number) => readonly [number, number, number]): ClosedPath {
  const n = SAMPLES;
  const points = Array.from({ length: n }, (_, i) => curve(i / n));
  const at = (i: number) => points[((i % n) + n) % n];
  const tangents = points.map((_, i): [number, number, number] => {
    // Fourth-order central difference.
    const d = [0, 1, 2].map((k) => 8 * (at(i + 1)[k] - at(i - 1)[k]) - (at(i + 2)[k] - at(i - 2)[k]));
    const length = Math.hypot(...d);
    return length > 1e-12 ? [d[0] / length, d[1] / length, d[2] / length] : [1, 0, 0];
  });
  const starts = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const chord = Math.hypot(...at(i + 1).map((x, k) => x - at(i)[k]));
    // An arc between two tangents is longer than its chord: chord · (θ/2)/sin(θ/2).
    const half = Math.acos(Math.max(-1, Math.min(1, dot(tangents[i], tangents[(i + 1) % n])))) / 2;
    starts[i + 1] = starts[i] + chord * (half > 1e-6 ? half / Math.sin(half) : 1);
  }
  const length = starts[n];
  const normals = minimalNormals(points, tangents, starts);
  if (length < 1e-9) {
    const still: PathPlace = { point: [...points[0]], tangent: [1, 0, 0], normal: [0, 1, 0] };
    return { length: 0, at: () => still };
  }
  return {
    length,
    at(s) {
      let r = s % length;
      if (r < 0) r += length;
      let [low, high] = [0, n - 1];
      while (low < high) {
        const middle = (low + high + 1) >> 1;
        if (starts[middle] <= r) low = middle;
        else high = middle - 1;
      }
      const span = starts[low + 1] - starts[low];
      const x = span > 0 ? (r - starts[low]) / span : 0;
      const [p, q] = [points[low], at(low + 1)];
      const [t, u] = [tangents[low], tangents[(low + 1) % n]];
      const [a, b] = [normals[low], normals[(low + 1) % n]];
      const point = [0, 1, 2].map((k) => {
        const rise = q[k] - p[k];
        const [m0, m1] = [t[k] * span, u[k] * span];
        return hermite(p[k], rise, m0, m1, x);
      }) as [number, number, number];
      const mix = [0, 1, 2].map((k) => (1 - x) * t[k] + x * u[k]);
      const size = Math.hypot(...mix) || 1;
      const tangent: [number, number, number] = [mix[0] / size, mix[1] / size, mix[2] / size];
      return {
        point,
        tangent,
        normal: squareTo(
          tangent,
          [0, 1, 2].map((k) => (1 - x) * a[k] + x * b[k]),
        ),
      };
    },
  };
}

function minimalNormals(
  points: readonly (readonly number[])[],
  tangents: readonly [number, number, number][],
  starts: Float64Array,
): [number, number, number][] {
  const n = points.length;
  const normals: [number, number, number][] = [squareTo(tangents[0], [0, 1, 0])];
  for (let i = 0; i < n; i++) {
    const [t, u] = [tangents[i], tangents[(i + 1) % n]];
    const v1 = points[(i + 1) % n].map((x, k) => x - points[i][k]);
    const c1 = dot(v1, v1) || 1;
    const reflected = (v: readonly number[], by: readonly number[], c: number) =>
      v.map((x, k) => x - (2 / c) * dot(by, v) * by[k]);
    const r = reflected(normals[i], v1, c1);
    const tl = reflected(t, v1, c1);
    const v2 = u.map((x, k) => x - tl[k]);
    const c2 = dot(v2, v2);
    normals.push(squareTo(u, c2 > 1e-20 ? reflected(r, v2, c2) : r));
  }
  // The residual rotation after one round is distributed evenly along the curve.
  const [first, last, t] = [normals[0], normals[n], tangents[0]];
  const miss = Math.atan2(dot(cross(first, last), t), dot(first, last));
  return normals.slice(0, n).map((v, i) => {
    const angle = -miss * (starts[n] > 0 ? starts[i] / starts[n] : 0);
    const side = cross(tangents[i], v);
    return [0, 1, 2].map((k) => Math.cos(angle) * v[k] + Math.sin(angle) * side[k]) as [number, number, number];
  });
}
