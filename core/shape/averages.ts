import { kernels } from '../kernels/kernels';
import { perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf } from './topology';

/**
 * A refinement as rows of averages: each new point is a · (first of its list) + b · (sum of the rest).
 * Lists may name new points that come before: faces come first, edges take their faces, vertices both,
 * so that a list is short, and one byte tells its weights. About half the bytes of a sparse matrix.
 */
export interface Averages {
  /** Rows in the order in which they are computed: faces, edges, vertices. */
  readonly start: Uint32Array;
  /** Old points by index, new ones by index after all old ones. */
  readonly index: Uint32Array;
  /** The pair of weights of each row, and the pairs. */
  readonly code: Uint8Array;
  readonly weights: Float32Array;
  readonly faces: number;
  readonly edges: number;
  /** Whether all lists of faces and edges have four points. */
  readonly quads: boolean;
}

/** The averages of one level of Catmull–Clark without creases; null if some vertex is irregular in its surroundings. */
export const averagesOf: (c: Connectivity) => { readonly averages: Averages | null } = perConnectivity((c) => ({
  averages: build(c),
}));

function build(c: Connectivity): Averages | null {
  const topo = topologyOf(c);
  const edges = topo.borderEdge.length;
  const faces = c.faceStart.length - 1;
  const old = c.vertexCount;
  const faceAt = (f: number) => old + old + edges + f;
  const start = new Uint32Array(faces + edges + old + 1);
  const code = new Uint8Array(faces + edges + old);
  const index: number[] = [];
  const pairs = new Map<string, number>();
  const weights: number[] = [];
  let made = 0;
  const row = (list: readonly number[], a: number, b: number) => {
    for (const i of list) index.push(i);
    const key = `${a}/${b}`;
    let id = pairs.get(key);
    if (id === undefined) {
      pairs.set(key, (id = pairs.size));
      weights.push(a, b);
    }
    code[made] = id;
    start[++made] = index.length;
  };
  for (let f = 0; f < faces; f++) {
    const list = [...c.corners.subarray(c.faceStart[f], c.faceStart[f + 1])];
    row(list, 1 / list.length, 1 / list.length);
  }
  const around: number[][] = Array.from({ length: old }, () => []);
  for (let f = 0; f < faces; f++)
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) around[c.corners[k]].push(faceAt(f));
  const border: number[][] = Array.from({ length: old }, () => []);
  for (let e = 0; e < edges; e++) {
    const [a, b] = [topo.edges[2 * e], topo.edges[2 * e + 1]];
    if (topo.borderEdge[e]) {
      row([a, b], 0.5, 0.5);
      border[a].push(b);
      border[b].push(a);
    } else row([a, b, faceAt(topo.edgeFaces[2 * e]), faceAt(topo.edgeFaces[2 * e + 1])], 0.25, 0.25);
  }
  for (let v = 0; v < old; v++) {
    const ring = topo.neighbours.subarray(topo.neighbourStart[v], topo.neighbourStart[v + 1]);
    const n = ring.length;
    if (border[v].length === 2) row([v, ...border[v]], 0.75, 0.125);
    else if (n === 0 || border[v].length > 0) row([v], 1, 0);
    else if (around[v].length !== n) return null;
    // (Q + 2R + (n − 3)S)/n with R = (S + mean of the neighbours)/2.
    else row([v, ...ring, ...around[v]], (n - 2) / n, 1 / n / n);
  }
  if (pairs.size > 256) return null;
  return {
    start,
    index: Uint32Array.from(index),
    code,
    weights: Float32Array.from(weights),
    faces,
    edges,
    quads: c.corners.length === 4 * faces && c.faceStart.every((s, f) => s === 4 * f) && !topo.borderEdge.includes(1),
  };
}

/** Points of the next level by the compiled kernels; null without kernels. */
export function averaged(mesh: Mesh, a: Averages): Float32Array | null {
  const k = kernels();
  if (!k) return null;
  const old = mesh.connectivity.vertexCount;
  const { faces, edges } = a;
  k.begin();
  const [start, index, code, weights] = [k.keep(a.start), k.keep(a.index), k.keep(a.code), k.keep(a.weights)];
  const made = old + edges + faces;
  // Old and new points are contiguous, so that one index addresses either.
  const base = k.room(12 * (old + made));
  k.write(base, mesh.positions);
  const to = base + 12 * old;
  if (a.quads) {
    k.run.fours(index, 0.25, 0.25, faces, base, to + 12 * (old + edges));
    // Faces follow the last edge; `fours` would overwrite them.
    k.run.fours(index + 16 * faces, 0.25, 0.25, edges - 1, base, to + 12 * old);
    k.run.averages(
      start + 4 * (faces + edges - 1),
      index,
      code + faces + edges - 1,
      weights,
      1,
      base,
      to + 12 * (old + edges - 1),
    );
  } else {
    k.run.averages(start, index, code, weights, faces, base, to + 12 * (old + edges));
    k.run.averages(start + 4 * faces, index, code + faces, weights, edges, base, to + 12 * old);
  }
  k.run.averages(start + 4 * (faces + edges), index, code + faces + edges, weights, old, base, to);
  return k.take(to, 3 * made);
}
