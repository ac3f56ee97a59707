import { carried } from './attributes';
import type { Connectivity } from './mesh';

/** Newell's normal of a face, not normalised: twice its vector area. */
export function faceNormal(c: Connectivity, p: ArrayLike<number>, f: number): [number, number, number] {
  let [x, y, z] = [0, 0, 0];
  const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
  for (let k = from; k < to; k++) {
    const a = 3 * c.corners[k];
    const b = 3 * c.corners[k + 1 < to ? k + 1 : from];
    x += (p[a + 1] - p[b + 1]) * (p[a + 2] + p[b + 2]);
    y += (p[a + 2] - p[b + 2]) * (p[a] + p[b]);
    z += (p[a] - p[b]) * (p[a + 1] + p[b + 1]);
  }
  return [x, y, z];
}

/** The mean of the corners of a face. */
export function faceMiddle(c: Connectivity, p: ArrayLike<number>, f: number): [number, number, number] {
  let [x, y, z] = [0, 0, 0];
  const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
  for (let k = from; k < to; k++) {
    const i = 3 * c.corners[k];
    x += p[i];
    y += p[i + 1];
    z += p[i + 2];
  }
  const n = to - from;
  return [x / n, y / n, z / n];
}

/** Keeps some of the faces and drops unused vertices. */
export function keepFaces(
  c: Connectivity,
  keep: (face: number) => boolean,
): { connectivity: Connectivity; from: Uint32Array } {
  const map = new Int32Array(c.vertexCount).fill(-1);
  const from: number[] = [];
  const starts = [0];
  const corners: number[] = [];
  const kept: number[] = [];
  const cornerFrom: number[] = [];
  for (let f = 0; f + 1 < c.faceStart.length; f++) {
    if (!keep(f)) continue;
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const v = c.corners[k];
      if (map[v] < 0) {
        map[v] = from.length;
        from.push(v);
      }
      corners.push(map[v]);
      cornerFrom.push(k);
    }
    starts.push(corners.length);
    kept.push(f);
  }
  return {
    connectivity: carried(
      c,
      { vertexCount: from.length, faceStart: Uint32Array.from(starts), corners: Uint32Array.from(corners) },
      kept,
      cornerFrom,
    ),
    from: Uint32Array.from(from),
  };
}

/** Positions of the kept vertices. */
export function gather(p: Float32Array, from: Uint32Array): Float32Array {
  const out = new Float32Array(from.length * 3);
  for (let i = 0; i < from.length; i++) out.set(p.subarray(3 * from[i], 3 * from[i] + 3), 3 * i);
  return out;
}
