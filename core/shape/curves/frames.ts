import { cross, dot, normalize } from '../../maths/vec3';
import { squareTo } from '../closed-path';

/** Unit vectors along a polyline, 3 numbers per point: tangent, and normal. */
export interface Frames {
  readonly tangents: Float64Array;
  readonly normals: Float64Array;
  /** Arc length in metres up to each point; one more for the closing segment. */
  readonly lengths: Float64Array;
}

const at = (p: ArrayLike<number>, i: number): [number, number, number] => [p[3 * i], p[3 * i + 1], p[3 * i + 2]];
const unit = (a: readonly number[]) => normalize(a, 1e-12);

/**
 * Frames that turn as little as possible along a polyline, by double reflection (Wang, Jüttler, Zheng
 * & Liu, ACM TOG 27, 2008). Round a closed one what is left after one round is taken off evenly along
 * the way, so that they close.
 *
 * @param points 3 numbers each
 */
export function framesAlong(points: ArrayLike<number>, closed: boolean): Frames {
  const n = points.length / 3;
  const tangents: [number, number, number][] = [];
  for (let i = 0; i < n; i++) {
    const before = i > 0 ? i - 1 : closed ? n - 1 : 0;
    const after = i + 1 < n ? i + 1 : closed ? 0 : n - 1;
    const [p, q, r] = [at(points, before), at(points, i), at(points, after)];
    const [a, b] = [unit(q.map((x, k) => x - p[k])), unit(r.map((x, k) => x - q[k]))];
    tangents.push(unit([0, 1, 2].map((k) => (a?.[k] ?? 0) + (b?.[k] ?? 0))) ?? a ?? b ?? tangents[i - 1] ?? [1, 0, 0]);
  }
  const rounds = closed ? n : n - 1;
  const lengths = new Float64Array(n + (closed ? 1 : 0));
  const normals: [number, number, number][] = [squareTo(tangents[0] ?? [1, 0, 0], [0, 1, 0])];
  for (let i = 0; i < rounds; i++) {
    const j = (i + 1) % n;
    const way = at(points, j).map((x, k) => x - at(points, i)[k]);
    lengths[i + 1] = lengths[i] + Math.hypot(...way);
    const c1 = dot(way, way) || 1;
    const reflect = (v: readonly number[], by: readonly number[], c: number) =>
      v.map((x, k) => x - (2 / c) * dot(by, v) * by[k]);
    const [r, t] = [reflect(normals[i], way, c1), reflect(tangents[i], way, c1)];
    const v2 = tangents[j].map((x, k) => x - t[k]);
    const c2 = dot(v2, v2);
    normals.push(squareTo(tangents[j], c2 > 1e-20 ? reflect(r, v2, c2) : r));
  }
  const flat = (list: readonly (readonly number[])[]) => Float64Array.from(list.slice(0, n).flat());
  if (!closed) return { tangents: flat(tangents), normals: flat(normals), lengths };
  const miss = Math.atan2(dot(cross(normals[0], normals[n]), tangents[0]), dot(normals[0], normals[n]));
  const total = lengths[n] || 1;
  const turned = normals.slice(0, n).map((v, i) => {
    const angle = (-miss * lengths[i]) / total;
    const side = cross(tangents[i], v);
    return [0, 1, 2].map((k) => Math.cos(angle) * v[k] + Math.sin(angle) * side[k]);
  });
  return { tangents: flat(tangents), normals: flat(turned), lengths };
}

/** Length of a polyline in metres. */
export function lengthOf(points: ArrayLike<number>, closed: boolean): number {
  const n = points.length / 3;
  let sum = 0;
  for (let i = 0; i < (closed ? n : n - 1); i++)
    sum += Math.hypot(...at(points, (i + 1) % n).map((x, k) => x - points[3 * i + k]));
  return sum;
}

/**
 * Points evenly spaced by arc length along a polyline. An open one keeps both ends.
 *
 * @returns 3 · count numbers
 */
export function resampled(points: ArrayLike<number>, closed: boolean, count: number): Float64Array {
  const n = points.length / 3;
  const rounds = closed ? n : n - 1;
  const starts = new Float64Array(rounds + 1);
  for (let i = 0; i < rounds; i++)
    starts[i + 1] = starts[i] + Math.hypot(...at(points, (i + 1) % n).map((x, k) => x - points[3 * i + k]));
  const total = starts[rounds];
  const out = new Float64Array(3 * count);
  let i = 0;
  for (let j = 0; j < count; j++) {
    const s = (total * j) / (closed ? count : Math.max(1, count - 1));
    while (i + 1 < rounds && starts[i + 1] <= s) i++;
    const span = starts[i + 1] - starts[i];
    const x = span > 0 ? Math.min(1, (s - starts[i]) / span) : 0;
    for (let k = 0; k < 3; k++)
      out[3 * j + k] = points[3 * i + k] + x * (points[3 * ((i + 1) % n) + k] - points[3 * i + k]);
  }
  return out;
}
