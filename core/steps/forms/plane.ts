import { number } from '../../declare/params';
import { connectivityStore, meshOf } from '../../shape/builder';
import { uniformConnectivity } from '../../shape/mesh';
import { brief, checkFaces, defineStep } from '../step';

const store = connectivityStore();

/** A level grid of quads, facing up. */
export const plane = defineStep({
  kind: 'plane',
  title: 'Plane',
  help: 'A level sheet with a grid of faces.',
  icon: 'plane',
  group: 'form',
  params: {
    width: number('Width', 3, 'Along x.', { unit: 'm', min: 0, max: 1000, soft: [0, 8] }),
    depth: number('Depth', 3, 'Along z.', { unit: 'm', min: 0, max: 1000, soft: [0, 8] }),
    columns: number('Columns', 40, 'Faces along x.', { min: 1, max: 2000, soft: [1, 160], integer: true }),
    rows: number('Rows', 40, 'Faces along z.', { min: 1, max: 2000, soft: [1, 160], integer: true }),
  },
  summary: (v) => `${brief(v.width)} × ${brief(v.depth)} m · ${v.columns} × ${v.rows}`,
  evaluate(v) {
    const { columns, rows } = v;
    checkFaces(columns * rows, 'Use fewer columns or rows.');
    const connectivity = store(`${columns}/${rows}`, () => {
      const corners = new Uint32Array(columns * rows * 4);
      const at = (i: number, j: number) => j * (columns + 1) + i;
      let k = 0;
      for (let j = 0; j < rows; j++)
        for (let i = 0; i < columns; i++) {
          corners.set([at(i, j), at(i, j + 1), at(i + 1, j + 1), at(i + 1, j)], k);
          k += 4;
        }
      const uv = new Float32Array(corners.length * 2);
      corners.forEach((v, i) => {
        uv[2 * i] = (v % (columns + 1)) / columns;
        uv[2 * i + 1] = 1 - Math.floor(v / (columns + 1)) / rows;
      });
      return uniformConnectivity((columns + 1) * (rows + 1), 4, corners, { uv });
    });
    const positions = new Float32Array(connectivity.vertexCount * 3);
    let p = 0;
    for (let j = 0; j <= rows; j++)
      for (let i = 0; i <= columns; i++) {
        positions[p++] = (i / columns - 0.5) * v.width;
        positions[p++] = 0;
        positions[p++] = (j / rows - 0.5) * v.depth;
      }
    return meshOf(connectivity, positions);
  },
});
