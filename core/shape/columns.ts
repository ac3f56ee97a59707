import { drawTopologyOf } from './drawable';
import { boundsOf } from './measure';
import type { Mesh } from './mesh';

/** Heights at which vertical lines intersect a surface. */
export interface Columns {
  /** Visits the height of each intersection of the line through x, z. */
  meetings(x: number, z: number, visit: (y: number) => void): void;
}

const NONE: Columns = { meetings: () => undefined };

/** Triangles of a shape sorted into columns, for vertical lines. */
export function columnsOf(mesh: Mesh): Columns {
  const p = mesh.positions;
  const { triangles, source } = drawTopologyOf(mesh.connectivity);
  const bounds = boundsOf(p);
  if (!bounds || triangles.length === 0) return NONE;
  const n = Math.max(1, Math.min(256, Math.ceil(Math.sqrt(triangles.length / 3))));
  const step = [0, 1, 2].map((k) => (bounds.max[k] - bounds.min[k]) / n || 1);
  const column = (v: number, k: 0 | 2) => Math.max(0, Math.min(n - 1, Math.floor((v - bounds.min[k]) / step[k])));
  const columns: number[][] = Array.from({ length: n * n }, () => []);
  const corner = (t: number, k: number) => 3 * source[triangles[t + k]];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [corner(t, 0), corner(t, 1), corner(t, 2)];
    const [x0, x1] = [column(Math.min(p[a], p[b], p[c]), 0), column(Math.max(p[a], p[b], p[c]), 0)];
    const [z0, z1] = [
      column(Math.min(p[a + 2], p[b + 2], p[c + 2]), 2),
      column(Math.max(p[a + 2], p[b + 2], p[c + 2]), 2),
    ];
    for (let i = x0; i <= x1; i++) for (let k = z0; k <= z1; k++) columns[i * n + k].push(t);
  }
  return {
    meetings(x, z, visit) {
      if (x < bounds.min[0] || x > bounds.max[0] || z < bounds.min[2] || z > bounds.max[2]) return;
      for (const t of columns[column(x, 0) * n + column(z, 2)]) {
        const [a, b, c] = [corner(t, 0), corner(t, 1), corner(t, 2)];
        const d = (p[b] - p[a]) * (p[c + 2] - p[a + 2]) - (p[c] - p[a]) * (p[b + 2] - p[a + 2]);
        if (d === 0) continue;
        const u = ((x - p[a]) * (p[c + 2] - p[a + 2]) - (p[c] - p[a]) * (z - p[a + 2])) / d;
        const w = ((p[b] - p[a]) * (z - p[a + 2]) - (x - p[a]) * (p[b + 2] - p[a + 2])) / d;
        if (u < 0 || w < 0 || u + w > 1) continue;
        visit(p[a + 1] + u * (p[b + 1] - p[a + 1]) + w * (p[c + 1] - p[a + 1]));
      }
    },
  };
}

/**
 * How far a shape can sink, in metres, until it touches another: the least way down from its points to the
 * surface below, and up from the points of the other to its own underside. Infinity where they are not
 * over each other.
 *
 * @param shift metres by which the upper one is moved beforehand
 */
export function roomBelow(upper: Mesh, lower: Mesh, shift: readonly [number, number, number]): number {
  let least = Infinity;
  const [below, above] = [columnsOf(lower), columnsOf(upper)];
  const p = upper.positions;
  for (let i = 0; i < p.length; i += 3) {
    const y = p[i + 1] + shift[1];
    below.meetings(p[i] + shift[0], p[i + 2] + shift[2], (floor) => (least = Math.min(least, y - floor)));
  }
  const q = lower.positions;
  for (let i = 0; i < q.length; i += 3)
    above.meetings(
      q[i] - shift[0],
      q[i + 2] - shift[2],
      (under) => (least = Math.min(least, under + shift[1] - q[i + 1])),
    );
  return least;
}
