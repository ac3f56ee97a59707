import { NearestPoints } from '../maths/nearest';
import type { Mesh } from '../shape/mesh';
import { boundsShown } from '../copies/copies';
import { boundsOf } from '../shape/measure';
import { pointsShown, sameCopies } from './copies-distance';

export interface Distance {
  /** Largest distance in metres from a point to its counterpart. */
  readonly largest: number;
  /** Root mean square distance in metres: the size of a step. */
  readonly rms: number;
  /** 'vertex': each point against itself; 'set': against the nearest point, both ways. */
  readonly by: 'vertex' | 'set';
}

/** Distance of two shapes; equally many copies are compared one by one. */
export function meshDistance(a: Mesh, b: Mesh): Distance {
  if (a.copies || b.copies) {
    const [p, q] = [pointsShown(a, 0), pointsShown(b, 0)];
    return p.length === q.length ? vertexDistance(p, q) : setDistance(p, q);
  }
  if (a.connectivity === b.connectivity || sameConnectivity(a, b)) return vertexDistance(a.positions, b.positions);
  return setDistance(a.positions, b.positions);
}

/** Distance as sets: what remains visible when copies take each other's places. */
export function shapeDistance(a: Mesh, b: Mesh): Distance {
  return setDistance(pointsShown(a, 0), pointsShown(b, 0));
}

/** A ribbon at f = N compared with itself at f = 0. */
export interface Closure {
  /**
   * 'exact': equal to the last bit. 'rounding': within single precision. 'permuted': the same set of points in other
   * places. 'open': another shape.
   */
  readonly how: 'exact' | 'rounding' | 'permuted' | 'open';
  readonly byPoint: Distance;
  /** Nearest neighbours both ways; absent if the points already agree. */
  readonly asSet?: Distance;
  /**
   * If a value does not close though the shape does: whether the shape continues across the seam, that is, agrees one
   * frame later and earlier too. Absent if nobody asks.
   */
  readonly goesOn?: boolean;
}

/** Relative distance below which two points count as one; positions are single precision. */
const ROUNDING = 1e-6;
const SAME_SET = 2e-5;

/**
 * Compares two shapes point by point and, if that fails, as sets of points.
 *
 * @param plain whether its surface is uniform, so that nothing on it shows a round body's rotation
 */
export function closureOf(a: Mesh, b: Mesh, plain = false): Closure {
  const byPoint = meshDistance(a, b);
  const how = agreement(a, b, byPoint, plain);
  if (how === 'exact' || how === 'rounding') return { how, byPoint };
  return { how, byPoint, asSet: byPoint.by === 'set' ? byPoint : shapeDistance(a, b) };
}

/** Whether two shapes are equal up to rounding and permuted parts. */
export function sameShape(a: Mesh, b: Mesh, plain = false): boolean {
  return agreement(a, b, null, plain) !== 'open';
}

/** @param byPoint distance point by point, if known */
function agreement(a: Mesh, b: Mesh, byPoint: Distance | null, plain: boolean): Closure['how'] {
  if (a.copies || b.copies) return agreementOfCopies(a, b, plain);
  const [p, q] = [a.positions, b.positions];
  const size = sizeOf(boundsOf(p));
  if (a.connectivity === b.connectivity || sameConnectivity(a, b)) {
    const { largest } = byPoint ?? vertexDistance(p, q);
    if (largest === 0) return 'exact';
    if (largest <= ROUNDING * size) return 'rounding';
  }
  return sameSet(p, q, SAME_SET * size) ? 'permuted' : 'open';
}

/**
 * Copies and particles look the same if they are the same set; round bodies are compared by what is visible of them.
 */
function agreementOfCopies(a: Mesh, b: Mesh, plain: boolean): Closure['how'] {
  if (sameCopies(a, b)) return 'exact';
  const size = sizeOf(boundsShown(a));
  // Colours count as much as a tenth of the size, so that none is overlooked.
  const shown = (m: Mesh, turnless?: number) => pointsShown(m, size / 10, turnless);
  const [p, q] = [shown(a), shown(b)];
  if (p.length === q.length && vertexDistance(p, q).largest <= ROUNDING * size) return 'rounding';
  const same = (x: Float32Array, y: Float32Array) => x.length === y.length && sameSet(x, y, SAME_SET * size);
  if (same(p, q)) return 'permuted';
  return plain && same(shown(a, size), shown(b, size)) ? 'permuted' : 'open';
}

const sizeOf = (box: { readonly min: ArrayLike<number>; readonly max: readonly number[] } | null) =>
  box ? Math.hypot(...box.max.map((m, k) => m - box.min[k])) : 0;

/** Whether each point has one of the other set within `reach`, both ways. */
function sameSet(a: Float32Array, b: Float32Array, reach: number): boolean {
  return allNear(a, b, reach) && allNear(b, a, reach);
}

/** By cells of that size: neighbours are in the same cell or an adjacent one. */
function allNear(from: Float32Array, to: Float32Array, reach: number): boolean {
  if (from.length === 0 || to.length === 0) return from.length === to.length;
  const cell = Math.max(reach, Number.MIN_VALUE * 2 ** 60);
  const at = (x: number) => Math.floor(x / cell);
  const keyOf = (x: number, y: number, z: number) =>
    (Math.imul(x, 73_856_093) ^ Math.imul(y, 19_349_663) ^ Math.imul(z, 83_492_791)) >>> 0;
  // M. Teschner et al., Optimized Spatial Hashing for Collision Detection of Deformable Objects, VMV 2003.
  const bits = Math.max(4, Math.ceil(Math.log2(to.length / 3)) + 1);
  const head = new Int32Array(2 ** bits).fill(-1);
  const next = new Int32Array(to.length / 3);
  const slot = (key: number) => key & (2 ** bits - 1);
  for (let i = 0; i < to.length; i += 3) {
    const s = slot(keyOf(at(to[i]), at(to[i + 1]), at(to[i + 2])));
    next[i / 3] = head[s];
    head[s] = i / 3;
  }
  const near = (x: number, y: number, z: number): boolean => {
    const [cx, cy, cz] = [at(x), at(y), at(z)];
    // Its own cell first.
    for (let k = 0; k < 27; k++) {
      const c = (k + 13) % 27;
      const s = slot(keyOf(cx + (c % 3) - 1, cy + (Math.floor(c / 3) % 3) - 1, cz + Math.floor(c / 9) - 1));
      for (let j = head[s]; j >= 0; j = next[j])
        if ((to[3 * j] - x) ** 2 + (to[3 * j + 1] - y) ** 2 + (to[3 * j + 2] - z) ** 2 <= reach * reach) return true;
    }
    return false;
  };
  for (let i = 0; i < from.length; i += 3) if (!near(from[i], from[i + 1], from[i + 2])) return false;
  return true;
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

/** Squared distances from each point of `from` to the nearest of `to`. */
function nearestDistances(from: Float32Array, to: Float32Array): { largest: number; sum: number; count: number } {
  const tree = new NearestPoints(to);
  let sum = 0;
  let largest = 0;
  for (let i = 0; i < from.length; i += 3) {
    const best = tree.squared(from[i], from[i + 1], from[i + 2]);
    sum += best;
    if (best > largest) largest = best;
  }
  return { largest: Math.sqrt(largest), sum, count: from.length / 3 };
}
