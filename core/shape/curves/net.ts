import { perConnectivity, type Connectivity } from '../mesh';
import { topologyOf } from '../topology';

/** Edges of faces and curves together. */
export interface Net {
  /** 2 · E vertices, each pair once. */
  readonly edges: Uint32Array;
  /** Neighbours of vertex v: neighbours[neighbourStart[v] … neighbourStart[v+1]−1]. */
  readonly neighbourStart: Uint32Array;
  readonly neighbours: Uint32Array;
  /** 1 for ends of curves and vertices on a border. */
  readonly border: Uint8Array;
}

function build(c: Connectivity): Net {
  const topology = topologyOf(c);
  const seen = new Set<number>();
  const edges: number[] = [];
  const add = (a: number, b: number) => {
    const key = a < b ? a * c.vertexCount + b : b * c.vertexCount + a;
    if (a === b || seen.has(key)) return;
    seen.add(key);
    edges.push(a, b);
  };
  for (let e = 0; e < topology.edges.length; e += 2) add(topology.edges[e], topology.edges[e + 1]);
  const border = topology.border.slice();
  const { curves } = c;
  for (let i = 0; curves && i < curves.closed.length; i++) {
    const [from, to] = [curves.start[i], curves.start[i + 1]];
    for (let k = from; k + 1 < to; k++) add(curves.points[k], curves.points[k + 1]);
    if (curves.closed[i] && to - from > 2) add(curves.points[to - 1], curves.points[from]);
  }
  const neighbourStart = new Uint32Array(c.vertexCount + 1);
  for (const v of edges) neighbourStart[v + 1]++;
  for (let v = 0; v < c.vertexCount; v++) {
    if (neighbourStart[v + 1] === 1) border[v] = 1;
    neighbourStart[v + 1] += neighbourStart[v];
  }
  const fill = neighbourStart.slice(0, c.vertexCount);
  const neighbours = new Uint32Array(edges.length);
  for (let e = 0; e < edges.length; e += 2) {
    neighbours[fill[edges[e]]++] = edges[e + 1];
    neighbours[fill[edges[e + 1]]++] = edges[e];
  }
  return { edges: Uint32Array.from(edges), neighbourStart, neighbours, border };
}

/** The net of a connectivity, computed once. */
export const netOf: (c: Connectivity) => Net = perConnectivity(build);

/** Joins edges into polylines that continue as long as exactly two meet. */
export function chained(edges: ArrayLike<number>, vertexCount: number): { vertices: number[]; closed: boolean }[] {
  const at: number[][] = Array.from({ length: vertexCount }, () => []);
  for (let e = 0; e < edges.length; e += 2) {
    at[edges[e]].push(e / 2);
    at[edges[e + 1]].push(e / 2);
  }
  const used = new Uint8Array(edges.length / 2);
  const follow = (from: number, first: number): { vertices: number[]; closed: boolean } => {
    const vertices = [from];
    let [v, e] = [from, first];
    for (;;) {
      used[e] = 1;
      v = edges[2 * e] === v ? edges[2 * e + 1] : edges[2 * e];
      if (v === from) return { vertices, closed: true };
      vertices.push(v);
      if (at[v].length !== 2) return { vertices, closed: false };
      const next = at[v].find((x) => !used[x]);
      if (next === undefined) return { vertices, closed: false };
      e = next;
    }
  };
  const out: { vertices: number[]; closed: boolean }[] = [];
  for (let v = 0; v < vertexCount; v++)
    if (at[v].length !== 2) for (const e of at[v]) if (!used[e]) out.push(follow(v, e));
  for (let e = 0; e < used.length; e++) if (!used[e]) out.push(follow(edges[2 * e], e));
  return out;
}
