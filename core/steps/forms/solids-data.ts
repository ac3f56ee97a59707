import { cross, dot, scale, subtract } from '../../maths/vec3';

/** A regular solid on the unit sphere: vertices, and faces counter-clockwise from outside. */
export interface Solid {
  readonly corners: readonly (readonly [number, number, number])[];
  readonly faces: readonly (readonly number[])[];
}

const PHI = (1 + Math.sqrt(5)) / 2;

function unit(points: readonly (readonly [number, number, number])[]): [number, number, number][] {
  return points.map(([x, y, z]) => {
    const l = Math.hypot(x, y, z);
    return [x / l, y / l, z / l];
  });
}

/**
 * Faces of a convex solid whose vertices lie on a sphere about the origin: the planes that have all other vertices on
 * one side. It works for every regular solid, so that none needs a table.
 */
function facesOf(corners: readonly (readonly [number, number, number])[]): number[][] {
  const n = corners.length;
  const found = new Map<string, number[]>();
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++)
      for (let c = b + 1; c < n; c++) {
        let normal = cross(subtract(corners[b], corners[a]), subtract(corners[c], corners[a]));
        if (dot(normal, corners[a]) < 0) normal = scale(normal, -1);
        const level = dot(normal, corners[a]);
        if (level < 1e-9 || corners.some((p) => dot(normal, p) > level + 1e-9)) continue;
        const on = corners.flatMap((p, i) => (dot(normal, p) > level - 1e-9 ? [i] : []));
        if (found.has(on.join())) continue;
        // Round the normal, counter-clockwise from outside.
        const u = subtract(
          corners[on[0]],
          normal.map((x) => (x * level) / dot(normal, normal)),
        );
        const v = cross(normal, u);
        found.set(
          on.join(),
          on.sort(
            (i, j) =>
              Math.atan2(dot(v, corners[i]) / Math.hypot(...v), dot(u, corners[i]) / Math.hypot(...u)) -
              Math.atan2(dot(v, corners[j]) / Math.hypot(...v), dot(u, corners[j]) / Math.hypot(...u)),
          ),
        );
      }
  return [...found.values()];
}

function solid(points: readonly (readonly [number, number, number])[]): Solid {
  const corners = unit(points);
  return { corners, faces: facesOf(corners) };
}

const signs = [-1, 1];
const cube = signs.flatMap((x) => signs.flatMap((y) => signs.map((z) => [x, y, z] as const)));
const cyclic = (a: number, b: number) =>
  signs.flatMap((s) =>
    signs.flatMap(
      (t) =>
        [
          [0, s * a, t * b],
          [s * a, t * b, 0],
          [t * b, 0, s * a],
        ] as [number, number, number][],
    ),
  );

/** Coordinates from H. S. M. Coxeter, Regular Polytopes, § 3.7. */
export const solids: Readonly<Record<'tetrahedron' | 'cube' | 'octahedron' | 'dodecahedron' | 'icosahedron', Solid>> = {
  tetrahedron: solid([
    [1, 1, 1],
    [1, -1, -1],
    [-1, 1, -1],
    [-1, -1, 1],
  ]),
  cube: solid(cube),
  octahedron: solid([
    [1, 0, 0],
    [-1, 0, 0],
    [0, 1, 0],
    [0, -1, 0],
    [0, 0, 1],
    [0, 0, -1],
  ]),
  dodecahedron: solid([...cube, ...cyclic(1 / PHI, PHI)]),
  icosahedron: solid(cyclic(1, PHI)),
};
