import type { Connectivity, Mesh } from './mesh';
import { edgesSharperThan } from './sharp';
import { NO_FACE, topologyOf } from './topology';

const known = new WeakMap<Connectivity, Map<string, { connectivity: Connectivity; from: Uint32Array }>>();

/** Splits vertices between corners that no sufficiently flat edge joins. */
export function parted(mesh: Mesh, degrees: number): Mesh {
  const c = mesh.connectivity;
  const sharp =
    degrees === 0 ? new Uint8Array(topologyOf(c).borderEdge.length).fill(1) : edgesSharperThan(mesh, degrees);
  const key = sharp.join('');
  let own = known.get(c);
  if (!own) known.set(c, (own = new Map()));
  let made = own.get(key);
  if (!made) {
    if (own.size > 30) own.clear();
    own.set(key, (made = split(c, sharp)));
  }
  const positions = new Float32Array(3 * made.from.length);
  for (let i = 0; i < made.from.length; i++)
    for (let k = 0; k < 3; k++) positions[3 * i + k] = mesh.positions[3 * made.from[i] + k];
  return { connectivity: made.connectivity, positions };
}

function split(c: Connectivity, sharp: Uint8Array): { connectivity: Connectivity; from: Uint32Array } {
  const { cornerEdge, edgeFaces } = topologyOf(c);
  const parent = Uint32Array.from({ length: c.corners.length }, (_, k) => k);
  const find = (k: number): number => {
    while (parent[k] !== k) k = parent[k] = parent[parent[k]];
    return k;
  };
  const first = new Int32Array(2 * sharp.length).fill(-1);
  for (let f = 0; f + 1 < c.faceStart.length; f++)
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const e = cornerEdge[k];
      if (sharp[e] || edgeFaces[2 * e + 1] === NO_FACE) continue;
      const next = k + 1 < c.faceStart[f + 1] ? k + 1 : c.faceStart[f];
      for (const corner of [k, next]) {
        const end =
          2 * e +
          (c.corners[corner] === c.corners[k]
            ? Number(c.corners[k] > c.corners[next])
            : Number(c.corners[next] > c.corners[k]));
        if (first[end] < 0) first[end] = corner;
        else parent[find(corner)] = find(first[end]);
      }
    }
  const name = new Map<number, number>();
  const from: number[] = [];
  const corners = Uint32Array.from(c.corners, (v, k) => {
    const root = find(k);
    let id = name.get(root);
    if (id === undefined) name.set(root, (id = from.push(v) - 1));
    return id;
  });
  return {
    connectivity: { ...c, vertexCount: from.length, corners, curves: undefined, shadingGroups: undefined },
    from: Uint32Array.from(from),
  };
}
