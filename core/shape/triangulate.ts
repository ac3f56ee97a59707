import earcut from 'earcut';
import { faceNormal } from './faces';
import type { Mesh } from './mesh';

/**
 * Every face cut into triangles: quads along their shorter diagonal where both are inside, larger
 * faces by ears in their plane.
 *
 * @returns 3 vertices a triangle; the face each came from; and the corner each of its corners was
 */
export function trianglesOf(mesh: Mesh): { triangles: Uint32Array; faces: Uint32Array; corners: Uint32Array } {
  const { faceStart, corners } = mesh.connectivity;
  const p = mesh.positions;
  const out: number[] = [];
  const from: number[] = [];
  for (let f = 0; f + 1 < faceStart.length; f++) {
    const start = faceStart[f];
    const sides = faceStart[f + 1] - start;
    const put = (a: number, b: number, c: number) => {
      out.push(start + a, start + b, start + c);
      from.push(f);
    };
    if (sides === 3) put(0, 1, 2);
    else if (sides === 4) {
      const [a, b, c, d] = [0, 1, 2, 3].map((k) => 3 * corners[start + k]);
      const square = (i: number, j: number) =>
        (p[i] - p[j]) ** 2 + (p[i + 1] - p[j + 1]) ** 2 + (p[i + 2] - p[j + 2]) ** 2;
      // Equal diagonals, as in a grid, must not be decided by rounding.
      if (square(b, d) < square(a, c) * (1 - 1e-6)) {
        put(0, 1, 3);
        put(1, 2, 3);
      } else {
        put(0, 1, 2);
        put(0, 2, 3);
      }
    } else {
      const n = faceNormal(mesh.connectivity, p, f);
      const axis = [0, 1, 2].reduce((best, k) => (Math.abs(n[k]) > Math.abs(n[best]) ? k : best), 0);
      const [u, v] = n[axis] >= 0 ? [(axis + 1) % 3, (axis + 2) % 3] : [(axis + 2) % 3, (axis + 1) % 3];
      const flat: number[] = [];
      for (let k = 0; k < sides; k++) flat.push(p[3 * corners[start + k] + u], p[3 * corners[start + k] + v]);
      const cut = earcut(flat);
      if (cut.length !== 3 * (sides - 2)) for (let k = 1; k + 1 < sides; k++) put(0, k, k + 1);
      else
        for (let t = 0; t < cut.length; t += 3) {
          const [a, b, c] = [cut[t], cut[t + 1], cut[t + 2]];
          const turn =
            (flat[2 * b] - flat[2 * a]) * (flat[2 * c + 1] - flat[2 * a + 1]) -
            (flat[2 * b + 1] - flat[2 * a + 1]) * (flat[2 * c] - flat[2 * a]);
          if (turn >= 0) put(a, b, c);
          else put(a, c, b);
        }
    }
  }
  return {
    triangles: Uint32Array.from(out, (k) => corners[k]),
    faces: Uint32Array.from(from),
    corners: Uint32Array.from(out),
  };
}
