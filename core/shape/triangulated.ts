import { carried } from './attributes';
import { uniformConnectivity, type Connectivity, type Mesh } from './mesh';
import { trianglesOf } from './triangulate';

const known = new WeakMap<Connectivity, Map<string, Connectivity>>();
const already = new WeakMap<Connectivity, boolean>();

function allTriangles(c: Connectivity): boolean {
  let is = already.get(c);
  if (is === undefined) {
    is = c.faceStart.every((start, f) => start === 3 * f);
    already.set(c, is);
  }
  return is;
}

/** The same shape with every face split into triangles. */
export function triangulated(mesh: Mesh): Mesh {
  const c = mesh.connectivity;
  if (allTriangles(c)) return mesh;
  const { triangles, faces, corners } = trianglesOf(mesh);
  // Quads may change their diagonal as they move; the same split is the same connectivity.
  const key = corners.join();
  let own = known.get(c);
  if (!own) known.set(c, (own = new Map()));
  let out = own.get(key);
  if (!out) {
    out = carried(
      c,
      { ...uniformConnectivity(c.vertexCount, 3, triangles), ...(c.curves ? { curves: c.curves } : {}) },
      faces,
      corners,
    );
    if (own.size > 12) own.clear();
    own.set(key, out);
  }
  return { connectivity: out, positions: mesh.positions };
}
