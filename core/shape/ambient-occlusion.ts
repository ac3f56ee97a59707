import { boundsOf } from './measure';
import type { Connectivity, Mesh } from './mesh';
import { NearPoints } from './near';
import { vertexNormals } from './normals';

/** Most discs that represent a shape; in finer shapes each stands for several vertices. */
const MOST_DISCS = 3000;
/** Search radius, as a fraction of the shape's size. */
const REACH = 0.22;

/**
 * How deep each vertex lies between other faces of its shape: 0 in the open, towards 1 where faces
 * that look at it fill all it looks at. Vertices stand as discs for the faces round them; what a disc
 * covers is its form factor A·cos θ·cos θ′ / (π·r² + A) (J. Wallace, K. Elmquist & E. Haines, “A ray
 * tracing algorithm for progressive radiosity”, SIGGRAPH 1989), as in M. Bunnell, “Dynamic ambient
 * occlusion and indirect lighting”, GPU Gems 2, 2005.
 *
 * @returns one number 0…1 a vertex
 */
export function ambientOcclusionOf({ connectivity, positions: p }: Mesh): Float32Array {
  const count = p.length / 3;
  const out = new Float32Array(count);
  const bounds = boundsOf(p);
  if (!bounds || connectivity.faceStart.length < 2) return out;
  const n = vertexNormals(connectivity, p);
  const areas = vertexAreas(connectivity, p);
  const stride = Math.max(1, Math.ceil(count / MOST_DISCS));
  const discs: number[] = [];
  for (let v = Math.floor(stride / 2); v < count; v += stride) discs.push(v);
  const places = Float32Array.from(discs.flatMap((v) => [p[3 * v], p[3 * v + 1], p[3 * v + 2]]));
  const size = Math.max(...bounds.max.map((x, k) => x - bounds.min[k]));
  const reach = REACH * size || 1;
  const near = new NearPoints(places, reach);
  for (let v = 0; v < count; v++) {
    const [x, y, z] = [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
    const [nx, ny, nz] = [n[3 * v], n[3 * v + 1], n[3 * v + 2]];
    let sum = 0;
    near.within(x, y, z, reach, (i, square) => {
      const d = discs[i];
      if (d === v || square < 1e-12) return;
      const r = Math.sqrt(square);
      const [wx, wy, wz] = [(p[3 * d] - x) / r, (p[3 * d + 1] - y) / r, (p[3 * d + 2] - z) / r];
      const facing = nx * wx + ny * wy + nz * wz;
      const back = -(n[3 * d] * wx + n[3 * d + 1] * wy + n[3 * d + 2] * wz);
      if (facing <= 0 || back <= 0) return;
      const area = areas[d] * stride;
      // Fades to zero at the radius, so that nothing pops as points come into reach.
      const fade = 1 - square / (reach * reach);
      sum += ((area * facing * back) / (Math.PI * square + area)) * fade;
    });
    out[v] = Math.min(1, sum);
  }
  return out;
}

/** A third of each triangle's area for each of its corners, in m². */
function vertexAreas({ faceStart, corners }: Connectivity, p: Float32Array): Float32Array {
  const out = new Float32Array(p.length / 3);
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let k = faceStart[f] + 1; k + 1 < faceStart[f + 1]; k++) {
      const [a, b, c] = [3 * corners[faceStart[f]], 3 * corners[k], 3 * corners[k + 1]];
      const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
      const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
      const third = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 6;
      for (const i of [a, b, c]) out[i / 3] += third;
    }
  return out;
}
