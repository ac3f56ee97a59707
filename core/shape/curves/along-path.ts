import { closedPath, splineThrough, squareTo, type PathPlace } from '../closed-path';
import type { Vec3 } from '../../maths/vec3';
import { framesAlong } from './frames';

/** A curve parameterised by arc length; an open one continues straight beyond its ends. */
export interface Path {
  readonly length: number;
  at(s: number): PathPlace;
}

const known = new WeakMap<Float32Array, Map<number, Path>>();

/**
 * The path along points, 3 numbers each; made once for as long as `key`, the positions they are from, is
 * the same.
 *
 * @param first tells the curves of one shape apart: the vertex they begin with
 */
export function pathAlong(key: Float32Array, points: Float64Array, closed: boolean, first = 0): Path {
  let own = known.get(key);
  if (!own) known.set(key, (own = new Map()));
  let path = own.get(first);
  if (!path) own.set(first, (path = closed ? closedPath(splineThrough(triples(points))) : openPath(points)));
  return path;
}

function triples(p: Float64Array): Vec3[] {
  return Array.from({ length: p.length / 3 }, (_, i): Vec3 => [p[3 * i], p[3 * i + 1], p[3 * i + 2]]);
}

function openPath(p: Float64Array): Path {
  const { tangents, normals, lengths } = framesAlong(p, false);
  const n = lengths.length;
  const length = n > 0 ? lengths[n - 1] : 0;
  return {
    length,
    at(s) {
      let [low, high] = [0, n - 2];
      while (low < high) {
        const middle = (low + high + 1) >> 1;
        if (lengths[middle] <= s) low = middle;
        else high = middle - 1;
      }
      const span = lengths[low + 1] - lengths[low] || 1;
      const x = Math.max(0, Math.min(1, (s - lengths[low]) / span));
      const mix = (a: Float64Array): [number, number, number] =>
        [0, 1, 2].map((k) => (1 - x) * a[3 * low + k] + x * a[3 * low + 3 + k]) as [number, number, number];
      const ahead = mix(tangents);
      const size = Math.hypot(...ahead) || 1;
      const tangent: [number, number, number] = [ahead[0] / size, ahead[1] / size, ahead[2] / size];
      const over = s < 0 ? s : s > length ? s - length : 0;
      const point = mix(p).map((q, k) => q + over * tangent[k]) as [number, number, number];
      return { point, tangent, normal: squareTo(tangent, mix(normals)) };
    },
  };
}
