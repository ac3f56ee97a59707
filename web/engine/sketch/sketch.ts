import { polylinesOf } from '@maypole/core/shape/curves/curves';
import type { Mesh } from '@maypole/core/shape/mesh';
import { boundsOf } from '@maypole/core/shape/measure';

/** View of a sketch: rotation about the vertical axis, then elevation, in radians. */
const [ROUND, ABOVE] = [-0.6, 0.5];
const LIGHT = [-0.42, 0.72, 0.55];

/**
 * A small picture of a shape: at an angle, each face shaded by its normal, hidden parts removed by a z-buffer. Made on
 * the processor, so that many can be made in a worker.
 *
 * @param tone '#rrggbb' of faces towards the light
 * @returns size × size × 4 bytes, on a transparent ground
 */
export function sketch(mesh: Mesh, size: number, tone: string): Uint8ClampedArray<ArrayBuffer> {
  const image = new Uint8ClampedArray(size * size * 4);
  const p = mesh.positions;
  const bounds = boundsOf(p);
  if (!bounds) return image;
  const middle = [0, 1, 2].map((k) => (bounds.min[k] + bounds.max[k]) / 2);
  let reach = 1e-9;
  for (let i = 0; i < p.length; i += 3)
    reach = Math.max(reach, Math.hypot(p[i] - middle[0], p[i + 1] - middle[1], p[i + 2] - middle[2]));
  const [cr, sr, ca, sa] = [Math.cos(ROUND), Math.sin(ROUND), Math.cos(ABOVE), Math.sin(ABOVE)];
  const scale = (0.47 * size) / reach;
  const n = p.length / 3;
  const [sx, sy, sz] = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  for (let i = 0; i < n; i++) {
    const [x, y, z] = [p[3 * i] - middle[0], p[3 * i + 1] - middle[1], p[3 * i + 2] - middle[2]];
    const u = cr * x + sr * z;
    const w = cr * z - sr * x;
    sx[i] = size / 2 + scale * u;
    sy[i] = size / 2 - scale * (ca * y - sa * w);
    sz[i] = sa * y + ca * w;
  }
  const depth = new Float32Array(size * size).fill(-Infinity);
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(tone.slice(i, i + 2), 16));
  const { faceStart, corners } = mesh.connectivity;
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let k = faceStart[f] + 1; k + 1 < faceStart[f + 1]; k++) {
      const [i0, i1, i2] = [corners[faceStart[f]], corners[k], corners[k + 1]];
      const [ux, uy, uz] = [p[3 * i1] - p[3 * i0], p[3 * i1 + 1] - p[3 * i0 + 1], p[3 * i1 + 2] - p[3 * i0 + 2]];
      const [vx, vy, vz] = [p[3 * i2] - p[3 * i0], p[3 * i2 + 1] - p[3 * i0 + 1], p[3 * i2 + 2] - p[3 * i0 + 2]];
      const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const length = Math.hypot(nx, ny, nz);
      if (length === 0) continue;
      // Both sides of a surface are visible, so back faces are lit too.
      const facing = (nx * LIGHT[0] + ny * LIGHT[1] + nz * LIGHT[2]) / length;
      const light = 0.45 + 0.6 * Math.max(facing, -0.55 * facing);
      triangle(sx, sy, sz, i0, i1, i2, size, depth, image, r * light, g * light, b * light);
    }
  for (const { vertices, closed } of polylinesOf(mesh.connectivity))
    for (let k = 0; k < (closed ? vertices.length : vertices.length - 1); k++)
      line(sx, sy, sz, vertices[k], vertices[(k + 1) % vertices.length], size, depth, image, r, g, b);
  return image;
}

/** A line two pixels wide, depth tested. */
function line(
  sx: Float32Array,
  sy: Float32Array,
  sz: Float32Array,
  a: number,
  b: number,
  size: number,
  depth: Float32Array,
  image: Uint8ClampedArray,
  red: number,
  green: number,
  blue: number,
): void {
  const steps = Math.max(1, Math.ceil(2 * Math.max(Math.abs(sx[b] - sx[a]), Math.abs(sy[b] - sy[a]))));
  for (let i = 0; i <= steps; i++) {
    const t = i / steps;
    const [x, y, z] = [sx[a] + t * (sx[b] - sx[a]), sy[a] + t * (sy[b] - sy[a]), sz[a] + t * (sz[b] - sz[a])];
    for (const [px, py] of [
      [x, y],
      [x - 1, y],
      [x, y - 1],
      [x - 1, y - 1],
    ]) {
      const [u, v] = [Math.floor(px), Math.floor(py)];
      if (u < 0 || v < 0 || u >= size || v >= size || z < depth[v * size + u] - 1e-3) continue;
      depth[v * size + u] = z;
      image.set([red, green, blue, 255], 4 * (v * size + u));
    }
  }
}

/**
 * Fills a triangle by edge functions, depth tested (J. Pineda, “A parallel algorithm for polygon rasterization”, 1988).
 */
function triangle(
  sx: Float32Array,
  sy: Float32Array,
  sz: Float32Array,
  a: number,
  b: number,
  c: number,
  size: number,
  depth: Float32Array,
  image: Uint8ClampedArray,
  red: number,
  green: number,
  blue: number,
): void {
  const area = (sx[b] - sx[a]) * (sy[c] - sy[a]) - (sy[b] - sy[a]) * (sx[c] - sx[a]);
  if (Math.abs(area) < 1e-9) return;
  const x0 = Math.max(0, Math.floor(Math.min(sx[a], sx[b], sx[c])));
  const x1 = Math.min(size - 1, Math.ceil(Math.max(sx[a], sx[b], sx[c])));
  const y0 = Math.max(0, Math.floor(Math.min(sy[a], sy[b], sy[c])));
  const y1 = Math.min(size - 1, Math.ceil(Math.max(sy[a], sy[b], sy[c])));
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const wa = ((sx[b] - px) * (sy[c] - py) - (sy[b] - py) * (sx[c] - px)) / area;
      const wb = ((sx[c] - px) * (sy[a] - py) - (sy[c] - py) * (sx[a] - px)) / area;
      const wc = 1 - wa - wb;
      if (wa < 0 || wb < 0 || wc < 0) continue;
      const z = wa * sz[a] + wb * sz[b] + wc * sz[c];
      const at = y * size + x;
      if (z <= depth[at]) continue;
      depth[at] = z;
      image[4 * at] = red;
      image[4 * at + 1] = green;
      image[4 * at + 2] = blue;
      image[4 * at + 3] = 255;
    }
}
