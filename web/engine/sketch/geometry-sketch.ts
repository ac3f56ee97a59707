import type { Mesh } from '@maypole/core/shape/mesh';
import type { RibbonGeometry } from '../evaluate/loop-cache';

type Part = Pick<RibbonGeometry['parts'][number], 'topology' | 'positions' | 'instances'>;

/**
 * Most points of a sketch, of one shape and of all copies together: what is drawn while one works must take no
 * noticeable time.
 */
const [MOST_OF_SHAPE, MOST_OF_COPIES] = [90_000, 24_000];
/** Most triangles of a shape that are drawn: beyond, several fall on each pixel, and one of them is enough. */
const MOST_TRIANGLES = 16_000;

/**
 * Triangles and curves of a ribbon's shapes as one mesh, for a small picture. Of many copies only as many are used as
 * fit; of a shape that is too large, nothing.
 *
 * @returns null if there is nothing to draw
 */
export function meshOfParts(parts: readonly Part[]): Mesh | null {
  const drawn = parts.filter((p) => p.positions.length / 3 <= MOST_OF_SHAPE);
  const copiesOf = (p: Part) => p.instances?.numbers.length ?? 1;
  const copied = drawn.reduce((n, p) => n + (p.instances ? (p.positions.length / 3) * copiesOf(p) : 0), 0);
  const times = Math.max(1, Math.ceil(copied / MOST_OF_COPIES));
  const total = (size: (p: Part) => number) =>
    drawn.reduce((n, p) => n + size(p) * Math.ceil(copiesOf(p) / (p.instances ? times : 1)), 0);
  const positions = new Float32Array(total((p) => p.positions.length));
  const step = (p: Part) => Math.ceil(p.topology.triangles.length / 3 / MOST_TRIANGLES);
  const corners = new Uint32Array(total((p) => 3 * Math.ceil(p.topology.triangles.length / 3 / step(p) || 0)));
  const lines = new Uint32Array(total((p) => p.topology.lines.length));
  if (corners.length + lines.length === 0) return null;
  let [o, c, l] = [0, 0, 0];
  for (const part of drawn) {
    const { topology, positions: p, instances } = part;
    const [{ triangles }, apart] = [topology, 3 * step(part)];
    for (let i = 0; i < (instances ? instances.numbers.length : 1); i += times) {
      const first = o / 3;
      if (!instances) positions.set(p, o);
      else {
        const m = instances.matrices.subarray(16 * i, 16 * i + 16);
        for (let k = 0; k < p.length; k += 3)
          for (let r = 0; r < 3; r++)
            positions[o + k + r] = m[r] * p[k] + m[r + 4] * p[k + 1] + m[r + 8] * p[k + 2] + m[r + 12];
      }
      o += p.length;
      for (let t = 0; t < triangles.length; t += apart)
        for (let k = 0; k < 3; k++) corners[c++] = first + triangles[t + k];
      for (const x of topology.lines) lines[l++] = first + x;
    }
  }
  const curves = {
    start: evenly(lines.length / 2, 2),
    points: lines,
    closed: new Uint8Array(lines.length / 2),
  };
  return {
    connectivity: {
      vertexCount: positions.length / 3,
      faceStart: evenly(corners.length / 3, 3),
      corners,
      ...(lines.length > 0 ? { curves } : {}),
    },
    positions,
  };
}

/** Offsets of `n` items of equal length, and the end of the last. */
function evenly(n: number, apart: number): Uint32Array {
  const out = new Uint32Array(n + 1);
  for (let i = 0; i <= n; i++) out[i] = apart * i;
  return out;
}
