import { curvesFrom, polylinesOf } from './curves/curves';
import type { Connectivity, Mesh } from './mesh';

/** Several shapes as one, each with its shading and material slots. */
export function joined(meshes: readonly Mesh[]): Mesh {
  const vertexCount = meshes.reduce((s, m) => s + m.connectivity.vertexCount, 0);
  const faces = meshes.reduce((s, m) => s + m.connectivity.faceStart.length - 1, 0);
  const count = meshes.reduce((s, m) => s + m.connectivity.corners.length, 0);
  const faceStart = new Uint32Array(faces + 1);
  const corners = new Uint32Array(count);
  const shadingGroups = new Uint16Array(faces);
  const slots = new Uint8Array(faces);
  const positions = new Float32Array(3 * vertexCount);
  const lines: { vertices: number[]; closed: boolean }[] = [];
  const all = (has: (c: Connectivity) => unknown) =>
    meshes.every((m) => m.connectivity.corners.length === 0 || has(m.connectivity));
  const uv = all((c) => c.uv) ? new Float32Array(2 * count) : undefined;
  let [v, f, k, group] = [0, 0, 0, 0];
  for (const { connectivity: c, positions: p } of meshes) {
    positions.set(p, 3 * v);
    corners.set(
      c.corners.map((x) => x + v),
      k,
    );
    if (uv && c.uv) uv.set(c.uv, 2 * k);
    let highest = 0;
    for (let i = 0; i + 1 < c.faceStart.length; i++) {
      faceStart[f + i] = c.faceStart[i] + k;
      const own = c.shadingGroups?.[i] ?? 0;
      highest = Math.max(highest, own);
      shadingGroups[f + i] = (group + own) % 65_536;
      slots[f + i] = c.slots?.[i] ?? 0;
    }
    for (const l of polylinesOf(c)) lines.push({ vertices: [...l.vertices].map((x) => x + v), closed: l.closed });
    group += highest + 1;
    v += c.vertexCount;
    f += c.faceStart.length - 1;
    k += c.corners.length;
  }
  faceStart[faces] = count;
  return {
    connectivity: {
      vertexCount,
      faceStart,
      corners,
      shadingGroups,
      ...(slots.some(Boolean) ? { slots } : {}),
      ...(uv ? { uv } : {}),
      ...(lines.length > 0 ? { curves: curvesFrom(lines) } : {}),
    },
    positions,
  };
}
