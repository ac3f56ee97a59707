import type { Mesh } from './mesh';
import { meshOf } from './builder';
import { uniformConnectivity } from './mesh';

/**
 * The surface where a field is 0, as quads: naive surface nets (S. Gibson, “Constrained elastic
 * surface nets”, 1998). Every cell of the grid that the surface passes through has one vertex, the
 * mean of the crossings of its edges; every edge that is crossed joins the four cells round it.
 * Faces turn to where the field is positive. The surface must not reach the border of the box.
 *
 * @param field negative inside
 * @param low, high corners of the box
 * @param cells along the longest side
 */
export function surfaceNets(
  field: (x: number, y: number, z: number) => number,
  low: readonly number[],
  high: readonly number[],
  cells: number,
): Mesh {
  const size = [0, 1, 2].map((k) => high[k] - low[k]);
  const cell = Math.max(...size) / cells;
  const n = size.map((s) => Math.max(1, Math.ceil(s / cell - 1e-9)));
  const [nx, ny, nz] = n.map((x) => x + 1);
  const values = new Float32Array(nx * ny * nz);
  let o = 0;
  for (let k = 0; k < nz; k++)
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) values[o++] = field(low[0] + i * cell, low[1] + j * cell, low[2] + k * cell);
  const ids = new Int32Array((nx - 1) * (ny - 1) * (nz - 1)).fill(-1);
  const cellAt = (i: number, j: number, k: number) => (k * (ny - 1) + j) * (nx - 1) + i;
  const valueAt = (i: number, j: number, k: number) => values[(k * ny + j) * nx + i];
  const points: number[] = [];
  for (let k = 0; k < nz - 1; k++)
    for (let j = 0; j < ny - 1; j++)
      for (let i = 0; i < nx - 1; i++) {
        let [x, y, z, count] = [0, 0, 0, 0];
        const cross = (a: number, b: number, c: number, axis: 0 | 1 | 2) => {
          const v0 = valueAt(i + a, j + b, k + c);
          const v1 = valueAt(i + a + Number(axis === 0), j + b + Number(axis === 1), k + c + Number(axis === 2));
          if (v0 < 0 === v1 < 0) return;
          const t = v0 / (v0 - v1);
          x += a + (axis === 0 ? t : 0);
          y += b + (axis === 1 ? t : 0);
          z += c + (axis === 2 ? t : 0);
          count++;
        };
        for (let b = 0; b < 2; b++)
          for (let c = 0; c < 2; c++) {
            cross(0, b, c, 0);
            cross(b, 0, c, 1);
            cross(b, c, 0, 2);
          }
        if (count === 0) continue;
        ids[cellAt(i, j, k)] = points.length / 3;
        points.push(low[0] + (i + x / count) * cell, low[1] + (j + y / count) * cell, low[2] + (k + z / count) * cell);
      }
  const corners: number[] = [];
  const quad = (inside: boolean, a: number, b: number, c: number, d: number) => {
    if (inside) corners.push(a, b, c, d);
    else corners.push(a, d, c, b);
  };
  for (let k = 1; k < nz - 1; k++)
    for (let j = 1; j < ny - 1; j++)
      for (let i = 1; i < nx - 1; i++) {
        const here = valueAt(i, j, k) < 0;
        if (here !== valueAt(i + 1, j, k) < 0)
          quad(
            here,
            ids[cellAt(i, j - 1, k - 1)],
            ids[cellAt(i, j, k - 1)],
            ids[cellAt(i, j, k)],
            ids[cellAt(i, j - 1, k)],
          );
        if (here !== valueAt(i, j + 1, k) < 0)
          quad(
            here,
            ids[cellAt(i - 1, j, k - 1)],
            ids[cellAt(i - 1, j, k)],
            ids[cellAt(i, j, k)],
            ids[cellAt(i, j, k - 1)],
          );
        if (here !== valueAt(i, j, k + 1) < 0)
          quad(
            here,
            ids[cellAt(i - 1, j - 1, k)],
            ids[cellAt(i, j - 1, k)],
            ids[cellAt(i, j, k)],
            ids[cellAt(i - 1, j, k)],
          );
      }
  return meshOf(uniformConnectivity(points.length / 3, 4, Uint32Array.from(corners)), Float32Array.from(points));
}
