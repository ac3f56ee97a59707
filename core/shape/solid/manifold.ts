import type { ManifoldToplevel } from 'manifold-3d';
import { FINISH, type Mesh } from '../mesh';
import { ConnectivityBuilder } from '../builder';
import { trianglesOf } from '../triangulate';

let library: ManifoldToplevel | null = null;

/** Loads the library for solids, once; until then `combined` returns null. */
export async function loadSolids(): Promise<void> {
  if (library) return;
  const { default: start } = await import('manifold-3d');
  const made = await start();
  made.setup();
  library = made;
}

export function solidsLoaded(): boolean {
  return library !== null;
}

export type SolidWay = 'union' | 'difference' | 'intersection';

/** A shape that does not bound a solid, with the reason. */
export class NotSolid extends Error {
  override readonly name = 'NotSolid';
}

/**
 * The union, difference or intersection of closed meshes (library manifold-3d). Faces that come
 * through whole keep their corners; cut ones become triangles.
 *
 * @param insideCut give faces that come from the second solid the finish for insides
 * @throws NotSolid when a mesh is not closed
 */
export function combined(a: Mesh, b: Mesh, way: SolidWay, insideCut: boolean): Mesh {
  const m = library!;
  const solids = [solidOf(m, a, 'This form'), solidOf(m, b, 'The other ribbon')];
  const [first, second] = solids;
  const made =
    way === 'union'
      ? first.solid.add(second.solid)
      : way === 'difference'
        ? first.solid.subtract(second.solid)
        : first.solid.intersect(second.solid);
  try {
    return meshFrom(made.getMesh(), first.id, insideCut, a, b);
  } finally {
    made.delete();
    for (const s of solids) s.solid.delete();
  }
}

interface Solid {
  readonly solid: InstanceType<ManifoldToplevel['Manifold']>;
  readonly id: number;
}

function solidOf(m: ManifoldToplevel, mesh: Mesh, name: string): Solid {
  const { triangles, faces } = trianglesOf(mesh);
  if (triangles.length === 0) throw new NotSolid(`${name} has no faces.`);
  const id = m.Manifold.reserveIDs(1);
  const input = new m.Mesh({
    numProp: 3,
    vertProperties: mesh.positions,
    triVerts: triangles,
    faceID: faces,
    runIndex: Uint32Array.of(0, triangles.length),
    runOriginalID: Uint32Array.of(id),
  });
  try {
    return { solid: new m.Manifold(input), id };
  } catch {
    throw new NotSolid(
      `${name} is not closed: some of its edges have one face or more than two. Give it thickness with Shell, or close its ends.`,
    );
  }
}

type ResultMesh = InstanceType<ManifoldToplevel['Mesh']>;

function meshFrom(result: ResultMesh, first: number, insideCut: boolean, a: Mesh, b: Mesh): Mesh {
  const { triVerts, vertProperties, numProp, runIndex, runOriginalID, faceID } = result;
  const builder = new ConnectivityBuilder();
  const runs = runOriginalID?.length ?? 0;
  for (let r = 0; r < runs; r++) {
    const mine = runOriginalID[r] === first;
    const source = (mine ? a : b).connectivity;
    const group = (f: number) => (source.shadingGroups?.[f] ?? 0) * 2 + (mine ? 0 : 1);
    const slot = (f: number) => (!mine && insideCut ? FINISH.inside : (source.slots?.[f] ?? FINISH.main));
    // Triangles of one face are grouped; two that still form a whole quad become it again.
    const byFace = new Map<number, number[]>();
    for (let t = runIndex[r] / 3; t < runIndex[r + 1] / 3; t++) {
      const list = byFace.get(faceID[t]);
      if (list) list.push(t);
      else byFace.set(faceID[t], [t]);
    }
    for (const [face, list] of byFace) {
      const quad = list.length === 2 ? quadOf(triVerts, list[0], list[1], vertProperties, numProp) : null;
      if (quad) builder.face(quad, group(face), slot(face));
      else
        for (const t of list)
          builder.face([triVerts[3 * t], triVerts[3 * t + 1], triVerts[3 * t + 2]], group(face), slot(face));
    }
  }
  const count = vertProperties.length / numProp;
  const positions = new Float32Array(3 * count);
  for (let i = 0; i < count; i++) for (let k = 0; k < 3; k++) positions[3 * i + k] = vertProperties[numProp * i + k];
  return { connectivity: builder.finish(count), positions };
}

/** The quad of two triangles that share an edge, if it is convex. */
function quadOf(t: Uint32Array, x: number, y: number, p: Float32Array, stride: number): number[] | null {
  const [a, b] = [
    [t[3 * x], t[3 * x + 1], t[3 * x + 2]],
    [t[3 * y], t[3 * y + 1], t[3 * y + 2]],
  ];
  for (let i = 0; i < 3; i++) {
    const [from, to] = [a[i], a[(i + 1) % 3]];
    const j = b.findIndex((v, k) => v === to && b[(k + 1) % 3] === from);
    if (j < 0) continue;
    const quad = [from, b[(j + 2) % 3], to, a[(i + 2) % 3]];
    const turn = (q: number) => {
      const [u, v, w] = [quad[q], quad[(q + 1) % 4], quad[(q + 2) % 4]].map((k) => [
        p[stride * k],
        p[stride * k + 1],
        p[stride * k + 2],
      ]);
      const [d, e] = [v.map((n, k) => n - u[k]), w.map((n, k) => n - v[k])];
      return [d[1] * e[2] - d[2] * e[1], d[2] * e[0] - d[0] * e[2], d[0] * e[1] - d[1] * e[0]];
    };
    const n = [0, 1, 2, 3].map(turn);
    return n.every((v) => v[0] * n[0][0] + v[1] * n[0][1] + v[2] * n[0][2] > 0) ? quad : null;
  }
  return null;
}
