import { faceNormal } from './faces';
import type { Mesh } from './mesh';
import { NO_FACE, topologyOf } from './topology';

/** Unit normals of all faces, 3 numbers each. */
export function faceNormals(mesh: Mesh): Float64Array {
  const faces = mesh.connectivity.faceStart.length - 1;
  const out = new Float64Array(3 * faces);
  for (let f = 0; f < faces; f++) {
    const [x, y, z] = faceNormal(mesh.connectivity, mesh.positions, f);
    const l = Math.hypot(x, y, z) || 1;
    out.set([x / l, y / l, z / l], 3 * f);
  }
  return out;
}

/** 1 for each edge of the topology where two faces meet at more than an angle in degrees. */
export function edgesSharperThan(mesh: Mesh, degrees: number): Uint8Array {
  const { edgeFaces, borderEdge } = topologyOf(mesh.connectivity);
  const n = faceNormals(mesh);
  const least = Math.cos((degrees * Math.PI) / 180) - 1e-9;
  const out = new Uint8Array(borderEdge.length);
  for (let e = 0; e < out.length; e++) {
    const [a, b] = [3 * edgeFaces[2 * e], 3 * edgeFaces[2 * e + 1]];
    if (edgeFaces[2 * e + 1] === NO_FACE) continue;
    if (n[a] * n[b] + n[a + 1] * n[b + 1] + n[a + 2] * n[b + 2] < least) out[e] = 1;
  }
  return out;
}
