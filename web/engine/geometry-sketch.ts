import type { Mesh } from '@maypole/core/shape/mesh';
import type { RibbonGeometry } from './loop-cache';
import { sketch } from './sketch';

type Part = Pick<RibbonGeometry['parts'][number], 'topology' | 'positions' | 'instances'>;

/** Points that a sketch is made of at most: what is drawn while one works must take no time to speak of. */
const MOST_POINTS = 90_000;

/**
 * A small picture of a ribbon from the shapes the view has already. Of many copies only as many are
 * drawn as fit; of a shape that is too large, nothing.
 *
 * @returns size × size × 4 bytes, the ground transparent; null where there is nothing to draw
 */
export function geometrySketch(
  parts: readonly Part[],
  size: number,
  tone: string,
): Uint8ClampedArray<ArrayBuffer> | null {
  const mesh = meshOfParts(parts);
  return mesh && sketch(mesh, size, tone);
}

/** Triangles and curves of all parts as one mesh, within MOST_POINTS. */
export function meshOfParts(parts: readonly Part[]): Mesh | null {
  const points = parts.reduce((n, p) => n + (p.positions.length / 3) * (p.instances?.numbers.length ?? 1), 0);
  const times = Math.max(1, Math.ceil(points / MOST_POINTS));
  const positions: number[] = [];
  const corners: number[] = [];
  const lines: number[] = [];
  for (const { topology, positions: p, instances } of parts) {
    if (p.length / 3 > MOST_POINTS) continue;
    const count = instances ? instances.numbers.length : 1;
    for (let i = 0; i < count; i += times) {
      const first = positions.length / 3;
      const m = instances?.matrices.subarray(16 * i, 16 * i + 16);
      for (let k = 0; k < p.length; k += 3)
        for (let r = 0; r < 3; r++)
          positions.push(m ? m[r] * p[k] + m[r + 4] * p[k + 1] + m[r + 8] * p[k + 2] + m[r + 12] : p[k + r]);
      for (const t of topology.triangles) corners.push(first + t);
      for (const l of topology.lines) lines.push(first + l);
    }
  }
  if (corners.length + lines.length === 0) return null;
  const curves = {
    start: Uint32Array.from({ length: lines.length / 2 + 1 }, (_, i) => 2 * i),
    points: Uint32Array.from(lines),
    closed: new Uint8Array(lines.length / 2),
  };
  return {
    connectivity: {
      vertexCount: positions.length / 3,
      faceStart: Uint32Array.from({ length: corners.length / 3 + 1 }, (_, i) => 3 * i),
      corners: Uint32Array.from(corners),
      ...(lines.length > 0 ? { curves } : {}),
    },
    positions: Float32Array.from(positions),
  };
}
