import { drawTopologyOf } from '../shape/drawable';
import type { Mesh } from '../shape/mesh';
import { boundsOf } from '../shape/measure';

/** Where a straight segment first meets a surface: its fraction 0…1, or Infinity. */
export type Hits = (from: Float64Array, to: Float64Array) => number;

/** A level floor, hit from above. */
export function level(height: number): Hits {
  return (a, b) => (a[1] >= height && b[1] < height ? (a[1] - height) / (a[1] - b[1]) : Infinity);
}

/**
 * The faces of a shape, from either side. Triangles lie in a grid of cells; a segment is tested against those of the
 * cells that its bounding box touches (T. Möller & B. Trumbore, “Fast, minimum storage ray/triangle intersection”,
 * 1997).
 */
export function surface(mesh: Mesh): Hits {
  const p = mesh.positions;
  const bounds = boundsOf(p);
  if (!bounds) return () => Infinity;
  const { triangles, source } = drawTopologyOf(mesh.connectivity);
  const size = bounds.max.map((m, k) => m - bounds.min[k]);
  const n = Math.max(1, Math.min(48, Math.ceil(Math.cbrt(triangles.length / 3))));
  const cell = size.map((s) => s / n || 1);
  const at = (x: number, k: number) => Math.max(0, Math.min(n - 1, Math.floor((x - bounds.min[k]) / cell[k])));
  const cells = new Map<number, number[]>();
  const each = (low: number[], high: number[], visit: (key: number) => void) => {
    for (let i = at(low[0], 0); i <= at(high[0], 0); i++)
      for (let j = at(low[1], 1); j <= at(high[1], 1); j++)
        for (let k = at(low[2], 2); k <= at(high[2], 2); k++) visit((i * n + j) * n + k);
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const c = [0, 1, 2].map((q) => 3 * source[triangles[t + q]]);
    const low = [0, 1, 2].map((k) => Math.min(p[c[0] + k], p[c[1] + k], p[c[2] + k]));
    const high = [0, 1, 2].map((k) => Math.max(p[c[0] + k], p[c[1] + k], p[c[2] + k]));
    each(low, high, (key) => {
      const list = cells.get(key);
      if (list) list.push(t);
      else cells.set(key, [t]);
    });
  }
  return (a, b) => {
    const low = [0, 1, 2].map((k) => Math.min(a[k], b[k]));
    const high = [0, 1, 2].map((k) => Math.max(a[k], b[k]));
    if (low.some((x, k) => x > bounds.max[k]) || high.some((x, k) => x < bounds.min[k])) return Infinity;
    let best = Infinity;
    each(low, high, (key) => {
      for (const t of cells.get(key) ?? [])
        best = Math.min(
          best,
          meeting(p, 3 * source[triangles[t]], 3 * source[triangles[t + 1]], 3 * source[triangles[t + 2]], a, b),
        );
    });
    return best;
  };
}

function meeting(p: Float32Array, i: number, j: number, k: number, a: Float64Array, b: Float64Array): number {
  const [dx, dy, dz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [ux, uy, uz] = [p[j] - p[i], p[j + 1] - p[i + 1], p[j + 2] - p[i + 2]];
  const [vx, vy, vz] = [p[k] - p[i], p[k + 1] - p[i + 1], p[k + 2] - p[i + 2]];
  const [hx, hy, hz] = [dy * vz - dz * vy, dz * vx - dx * vz, dx * vy - dy * vx];
  const det = ux * hx + uy * hy + uz * hz;
  if (det === 0) return Infinity;
  const [sx, sy, sz] = [a[0] - p[i], a[1] - p[i + 1], a[2] - p[i + 2]];
  const u = (sx * hx + sy * hy + sz * hz) / det;
  if (u < 0 || u > 1) return Infinity;
  const [qx, qy, qz] = [sy * uz - sz * uy, sz * ux - sx * uz, sx * uy - sy * ux];
  const w = (dx * qx + dy * qy + dz * qz) / det;
  if (w < 0 || u + w > 1) return Infinity;
  const t = (vx * qx + vy * qy + vz * qz) / det;
  return t >= 0 && t <= 1 ? t : Infinity;
}
