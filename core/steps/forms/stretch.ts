import { vector } from '../../declare/params';
import { meshOf } from '../../shape/builder';
import type { Mesh } from '../../shape/mesh';

/** Scale of a round form along each axis: turns a ball into an ellipsoid. */
export const stretch = vector('Stretch', [1, 1, 1], 'Factors on its size along x, y and z.', {
  unit: '×',
  min: 0,
  max: 1000,
  soft: [0, 3],
});

/** A form about the origin, scaled along x, y and z. */
export function stretched(mesh: Mesh, by: readonly [number, number, number]): Mesh {
  if (by.every((x) => x === 1)) return mesh;
  return meshOf(
    mesh.connectivity,
    mesh.positions.map((x, i) => x * by[i % 3]),
  );
}
