import { carried } from './attributes';
import { curvesFrom, polylinesOf } from './curves/curves';
import type { Connectivity, Mesh } from './mesh';
import { NearPoints } from './near';
import { SamePoints } from './same-points';

/**
 * Each point, in order, joined to the first one before it within a distance; faces that collapse go. Only points that
 * are joined to none are looked for, which lie farther than that from each other, so that the time is linear in points
 * wherever they are.
 */
export function welded(mesh: Mesh, distance: number): Mesh {
  const c = mesh.connectivity;
  const p = mesh.positions;
  const into = Uint32Array.from({ length: c.vertexCount }, (_, v) => v);
  if (distance > 0) {
    const near = new NearPoints(p, distance, 0);
    for (let v = 0; v < c.vertexCount; v++) {
      near.within(p[3 * v], p[3 * v + 1], p[3 * v + 2], distance, (u) => {
        if (u < into[v]) into[v] = u;
      });
      if (into[v] === v) near.put(v);
    }
  } else {
    const same = new SamePoints(c.vertexCount);
    for (let v = 0; v < c.vertexCount; v++) into[v] = same.first(p[3 * v], p[3 * v + 1], p[3 * v + 2], v);
  }
  const name = new Int32Array(c.vertexCount).fill(-1);
  const from: number[] = [];
  for (let v = 0; v < c.vertexCount; v++) if (into[v] === v) name[v] = from.push(v) - 1;
  if (from.length === c.vertexCount) return mesh;
  const at = (v: number) => name[into[v]];
  const starts = [0];
  const corners: number[] = [];
  const faceFrom: number[] = [];
  const cornerFrom: number[] = [];
  for (let f = 0; f + 1 < c.faceStart.length; f++) {
    const kept: number[] = [];
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++)
      if (kept.length === 0 || at(c.corners[k]) !== at(c.corners[kept[kept.length - 1]])) kept.push(k);
    if (kept.length > 1 && at(c.corners[kept[0]]) === at(c.corners[kept[kept.length - 1]])) kept.pop();
    // A face whose corners meet elsewhere than side by side has no inside left.
    if (kept.length < 3 || new Set(kept.map((k) => at(c.corners[k]))).size < kept.length) continue;
    for (const k of kept) {
      corners.push(at(c.corners[k]));
      cornerFrom.push(k);
    }
    starts.push(corners.length);
    faceFrom.push(f);
  }
  const base: Connectivity = {
    vertexCount: from.length,
    faceStart: Uint32Array.from(starts),
    corners: Uint32Array.from(corners),
  };
  const lines = polylinesOf(c)
    .map((l) => ({
      vertices: [...l.vertices].map(at).filter((v, i, all) => i === 0 || v !== all[i - 1]),
      closed: l.closed,
    }))
    .filter((l) => l.vertices.length > 1);
  const positions = new Float32Array(3 * from.length);
  from.forEach((v, i) => positions.set(p.subarray(3 * v, 3 * v + 3), 3 * i));
  return {
    connectivity: carried(
      c,
      { ...base, ...(lines.length > 0 ? { curves: curvesFrom(lines) } : {}) },
      faceFrom,
      cornerFrom,
    ),
    positions,
  };
}
