import { drawTopologyOf } from '../shape/drawable';
import type { Mesh } from '../shape/mesh';

/** Triangles of a shape with cumulative areas. */
export interface Areas {
  /** 3 vertices per triangle. */
  readonly corners: Uint32Array;
  /** Cumulative area in m², each triangle included. */
  readonly until: Float64Array;
}

export function areasOf(mesh: Mesh): Areas {
  const { triangles, source } = drawTopologyOf(mesh.connectivity);
  const corners = triangles.map((v) => source[v]);
  const p = mesh.positions;
  const until = new Float64Array(corners.length / 3);
  let total = 0;
  for (let t = 0; t < until.length; t++) {
    const [a, b, c] = [3 * corners[3 * t], 3 * corners[3 * t + 1], 3 * corners[3 * t + 2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    until[t] = total += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
  }
  return { corners, until };
}

/** Total area in m². */
export function totalOf({ until }: Areas): number {
  return until.length > 0 ? until[until.length - 1] : 0;
}

/** The triangle at a share 0 ≤ x < 1 of the total area: selects triangles in proportion to their area. */
export function triangleAt(areas: Areas, x: number): number {
  const wanted = x * totalOf(areas);
  let [low, high] = [0, areas.until.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (areas.until[middle] > wanted) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Uniform barycentric coordinates from two random numbers, by folding the unit square (G. Turk, “Generating random
 * points in triangles”, Graphics Gems, 1990).
 */
export function folded(u: number, w: number): [number, number] {
  return u + w > 1 ? [1 - u, 1 - w] : [u, w];
}
