import { kernels } from '../kernels/kernels';
import type { Connectivity } from './mesh';

/** Below this many corners, plain TypeScript finishes before buffers would be copied. */
const LEAST = 512;

/**
 * Vector areas of faces added up at vertices (Newell's method for polygons of any planarity),
 * then made unit length. A vertex without area gets (0, 1, 0).
 *
 * @param target vertex of the result each corner adds to; defaults to the corner's own vertex
 * @param count number of result vertices
 * @returns 3 · count numbers, unit vectors pointing outwards
 */
export function cornerNormals(
  c: Connectivity,
  positions: Float32Array,
  target: Uint32Array = c.corners,
  count = c.vertexCount,
): Float32Array {
  const { faceStart, corners } = c;
  const k = corners.length >= LEAST ? kernels() : null;
  if (k) {
    k.begin();
    const [starts, all, to] = [k.keep(faceStart), k.keep(corners), k.keep(target)];
    const places = k.put(positions);
    const made = k.room(16 * count, true);
    k.run.normals(starts, all, to, faceStart.length - 1, places, made, count);
    return k.take(made, 3 * count);
  }
  const out = new Float32Array(count * 3);
  for (let f = 0; f + 1 < faceStart.length; f++) {
    const from = faceStart[f];
    const to = faceStart[f + 1];
    let nx = 0;
    let ny = 0;
    let nz = 0;
    // Differences from the first corner keep the cross products accurate far from the origin.
    const o = corners[from] * 3;
    const ox = positions[o];
    const oy = positions[o + 1];
    const oz = positions[o + 2];
    let ax = 0;
    let ay = 0;
    let az = 0;
    for (let k = from + 1; k < to; k++) {
      const i = corners[k] * 3;
      const bx = positions[i] - ox;
      const by = positions[i + 1] - oy;
      const bz = positions[i + 2] - oz;
      nx += ay * bz - az * by;
      ny += az * bx - ax * bz;
      nz += ax * by - ay * bx;
      ax = bx;
      ay = by;
      az = bz;
    }
    for (let k = from; k < to; k++) {
      const t = target[k] * 3;
      out[t] += nx;
      out[t + 1] += ny;
      out[t + 2] += nz;
    }
  }
  for (let i = 0; i < out.length; i += 3) {
    const x = out[i];
    const y = out[i + 1];
    const z = out[i + 2];
    const l = Math.sqrt(x * x + y * y + z * z);
    if (l > 0) {
      out[i] = x / l;
      out[i + 1] = y / l;
      out[i + 2] = z / l;
    } else out[i + 1] = 1;
  }
  return out;
}

/** Unit normals at the vertices, 3 · vertexCount numbers, all faces smooth. */
export function vertexNormals(c: Connectivity, positions: Float32Array): Float32Array {
  return cornerNormals(c, positions);
}
