import { faceCount, type Mesh } from './mesh';
import { topologyOf } from './topology';

/** V − E + F. */
export function eulerCharacteristic(mesh: Mesh): number {
  const c = mesh.connectivity;
  return c.vertexCount - topologyOf(c).edges.length / 2 + faceCount(c);
}

/** Visits the fan triangles of every face (three vertex indices). */
function eachTriangle(mesh: Mesh, visit: (a: number, b: number, c: number) => void): void {
  const { faceStart, corners } = mesh.connectivity;
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let k = faceStart[f] + 1; k + 1 < faceStart[f + 1]; k++)
      visit(corners[faceStart[f]], corners[k], corners[k + 1]);
}

/** Surface area in m²; faces of more than three corners are split into fans. */
export function surfaceArea(mesh: Mesh): number {
  const p = mesh.positions;
  let sum = 0;
  eachTriangle(mesh, (a, b, c) => {
    const [ux, uy, uz] = [p[b * 3] - p[a * 3], p[b * 3 + 1] - p[a * 3 + 1], p[b * 3 + 2] - p[a * 3 + 2]];
    const [vx, vy, vz] = [p[c * 3] - p[a * 3], p[c * 3 + 1] - p[a * 3 + 1], p[c * 3 + 2] - p[a * 3 + 2]];
    sum += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
  });
  return sum;
}

/** Signed volume in m³ of a closed mesh (divergence theorem); positive when faces turn outwards. */
export function volume(mesh: Mesh): number {
  const p = mesh.positions;
  let sum = 0;
  eachTriangle(mesh, (a, b, c) => {
    sum +=
      (p[a * 3] * (p[b * 3 + 1] * p[c * 3 + 2] - p[b * 3 + 2] * p[c * 3 + 1]) +
        p[a * 3 + 1] * (p[b * 3 + 2] * p[c * 3] - p[b * 3] * p[c * 3 + 2]) +
        p[a * 3 + 2] * (p[b * 3] * p[c * 3 + 1] - p[b * 3 + 1] * p[c * 3])) /
      6;
  });
  return sum;
}

export interface Bounds {
  readonly min: readonly [number, number, number];
  readonly max: readonly [number, number, number];
}

/** Bounding box of all positions (3 numbers each); null for none. */
export function boundsOf(positions: Float32Array): Bounds | null {
  if (positions.length === 0) return null;
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const x = positions[i + k];
      if (x < min[k]) min[k] = x;
      if (x > max[k]) max[k] = x;
    }
  return { min, max };
}
