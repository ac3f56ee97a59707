import type { Mesh } from '../shape/mesh';
import { boundsShown } from '../copies/copies';
import { boundsOf } from '../shape/measure';
import { pointsShown, sameCopies } from './copies-distance';

export interface Distance {
  /** Largest distance in metres from a point to its counterpart. */
  readonly largest: number;
  /** Root of the mean squared distance in metres: the size of a step. */
  readonly rms: number;
  /** 'vertex': each point against itself; 'set': against the nearest point, both ways. */
  readonly by: 'vertex' | 'set';
}

/** How far two shapes are apart; copies are compared one by one where there are as many of both. */
export function meshDistance(a: Mesh, b: Mesh): Distance {
  if (a.copies || b.copies) {
    const [p, q] = [pointsShown(a, 0), pointsShown(b, 0)];
    return p.length === q.length ? vertexDistance(p, q) : setDistance(p, q);
  }
  if (a.connectivity === b.connectivity || sameConnectivity(a, b)) return vertexDistance(a.positions, b.positions);
  return setDistance(a.positions, b.positions);
}

/** How far they are apart as sets: what a copy that has taken another one's place leaves to be seen. */
export function shapeDistance(a: Mesh, b: Mesh): Distance {
  return setDistance(pointsShown(a, 0), pointsShown(b, 0));
}

/** How a ribbon at f = N compares with itself at f = 0. */
export interface Closure {
  /**
   * 'exact': every point is where it was, to the last bit. 'rounding': within what single-precision
   * numbers can tell. 'permuted': points have changed places, and together are the same set. 'open':
   * it is another shape.
   */
  readonly how: 'exact' | 'rounding' | 'permuted' | 'open';
  readonly byPoint: Distance;
  /** Nearest neighbours both ways; absent where the points already agree. */
  readonly asSet?: Distance;
  /**
   * Where a value does not close though the shape does: whether the shape goes on over the seam as it
   * arrives there, so that it agrees a frame later and a frame earlier, too. Absent where nothing asks.
   */
  readonly goesOn?: boolean;
}

/** Share of the size of a shape below which two places count as one; positions are single-precision. */
const ROUNDING = 1e-6;
const SAME_SET = 2e-5;

/** Compares two shapes point by point and, where that fails, as sets of points. */
export function closureOf(a: Mesh, b: Mesh): Closure {
  if (a.copies || b.copies) return closureOfCopies(a, b);
  const byPoint = meshDistance(a, b);
  if (byPoint.by === 'vertex' && byPoint.largest === 0) return { how: 'exact', byPoint };
  const bounds = boundsOf(a.positions);
  const size = bounds ? Math.hypot(...bounds.max.map((m, k) => m - bounds.min[k])) : 0;
  if (byPoint.by === 'vertex' && byPoint.largest <= ROUNDING * size) return { how: 'rounding', byPoint };
  const asSet = byPoint.by === 'set' ? byPoint : setDistance(a.positions, b.positions);
  return { how: asSet.largest <= SAME_SET * size ? 'permuted' : 'open', byPoint, asSet };
}

/** Copies and particles are the same picture when they are the same set, whichever of them stands where. */
function closureOfCopies(a: Mesh, b: Mesh): Closure {
  const byPoint = meshDistance(a, b);
  if (sameCopies(a, b)) return { how: 'exact', byPoint };
  const shown = boundsShown(a);
  const size = shown ? Math.hypot(...shown.max.map((m, k) => m - shown.min[k])) : 0;
  // Colours count as much as a tenth of the size would, so that none of them is overlooked.
  const [p, q] = [pointsShown(a, size / 10), pointsShown(b, size / 10)];
  if (p.length === q.length && vertexDistance(p, q).largest <= ROUNDING * size) return { how: 'rounding', byPoint };
  const asSet = setDistance(p, q);
  return { how: p.length === q.length && asSet.largest <= SAME_SET * size ? 'permuted' : 'open', byPoint, asSet };
}

/** Distances of nearest neighbours, both ways. */
function setDistance(a: Float32Array, b: Float32Array): Distance {
  const there = nearestDistances(a, b);
  const back = nearestDistances(b, a);
  const count = there.count + back.count;
  return {
    largest: Math.max(there.largest, back.largest),
    rms: count === 0 ? 0 : Math.sqrt((there.sum + back.sum) / count),
    by: 'set',
  };
}

function sameConnectivity(a: Mesh, b: Mesh): boolean {
  const [p, q] = [a.connectivity.corners, b.connectivity.corners];
  return a.positions.length === b.positions.length && p.length === q.length && p.every((v, i) => v === q[i]);
}

function vertexDistance(p: Float32Array, q: Float32Array): Distance {
  let largest = 0;
  let sum = 0;
  for (let i = 0; i < p.length; i += 3) {
    const d = (p[i] - q[i]) ** 2 + (p[i + 1] - q[i + 1]) ** 2 + (p[i + 2] - q[i + 2]) ** 2;
    sum += d;
    if (d > largest) largest = d;
  }
  return { largest: Math.sqrt(largest), rms: p.length ? Math.sqrt((sum * 3) / p.length) : 0, by: 'vertex' };
}

/** Squared distances from each point of `from` to the nearest of `to`, by a grid of buckets. */
function nearestDistances(from: Float32Array, to: Float32Array): { largest: number; sum: number; count: number } {
  const count = from.length / 3;
  if (count === 0) return { largest: 0, sum: 0, count };
  const bounds = boundsOf(to);
  if (!bounds) return { largest: Infinity, sum: Infinity, count };
  const size = bounds.max.map((m, k) => m - bounds.min[k]);
  const n = Math.max(1, Math.ceil(Math.cbrt(to.length / 3 / 2)));
  const cell = Math.max(...size) / n || 1;
  const dims = size.map((s) => Math.floor(s / cell) + 1);
  const at = (p: Float32Array, i: number, k: number) =>
    Math.max(0, Math.min(dims[k] - 1, Math.floor((p[i + k] - bounds.min[k]) / cell)));
  const buckets = new Map<number, number[]>();
  for (let i = 0; i < to.length; i += 3) {
    const key = (at(to, i, 0) * dims[1] + at(to, i, 1)) * dims[2] + at(to, i, 2);
    const list = buckets.get(key);
    if (list) list.push(i);
    else buckets.set(key, [i]);
  }
  let sum = 0;
  let largest = 0;
  const reachMax = Math.max(...dims);
  for (let i = 0; i < from.length; i += 3) {
    const c = [at(from, i, 0), at(from, i, 1), at(from, i, 2)];
    let best = Infinity;
    // Rings of cells outwards; one ring beyond the first hit makes sure nothing nearer is missed.
    for (let ring = 0; ring <= reachMax; ring++) {
      if (best < Infinity && best <= ((ring - 1) * cell) ** 2) break;
      for (let x = Math.max(0, c[0] - ring); x <= Math.min(dims[0] - 1, c[0] + ring); x++)
        for (let y = Math.max(0, c[1] - ring); y <= Math.min(dims[1] - 1, c[1] + ring); y++)
          for (let z = Math.max(0, c[2] - ring); z <= Math.min(dims[2] - 1, c[2] + ring); z++) {
            if (Math.max(Math.abs(x - c[0]), Math.abs(y - c[1]), Math.abs(z - c[2])) !== ring) continue;
            for (const j of buckets.get((x * dims[1] + y) * dims[2] + z) ?? [])
              best = Math.min(
                best,
                (from[i] - to[j]) ** 2 + (from[i + 1] - to[j + 1]) ** 2 + (from[i + 2] - to[j + 2]) ** 2,
              );
          }
    }
    sum += best;
    largest = Math.max(largest, best);
  }
  return { largest: Math.sqrt(largest), sum, count };
}
