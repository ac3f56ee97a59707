import { faceCount, perConnectivity, type Connectivity } from './mesh';

/** Edges, neighbours and borders of a connectivity. */
export interface Topology {
  /** 2 · E vertex pairs, each edge once. */
  readonly edges: Uint32Array;
  /** 2 · E faces on the two sides; the second is NO_FACE on a border. */
  readonly edgeFaces: Uint32Array;
  /** Edge of each corner: from that corner's vertex to the next one in its face. */
  readonly cornerEdge: Uint32Array;
  /** Neighbours of vertex v along edges: neighbours[neighbourStart[v] … neighbourStart[v+1]−1]. */
  readonly neighbourStart: Uint32Array;
  readonly neighbours: Uint32Array;
  /** 1 for vertices on a border. */
  readonly border: Uint8Array;
  /** 1 for edges with one face, or with more than two. */
  readonly borderEdge: Uint8Array;
}

export const NO_FACE = 0xffffffff;

function build(c: Connectivity): Topology {
  const faces = faceCount(c);
  const { faceStart, corners, vertexCount } = c;
  const cornerEdge = new Uint32Array(corners.length);
  // Hash by vertex: chains of the edges that have v as their smaller end.
  const head = new Int32Array(vertexCount).fill(-1);
  const next = new Int32Array(corners.length);
  const ends = new Uint32Array(corners.length * 2);
  const sides = new Uint32Array(corners.length * 2).fill(NO_FACE);
  const crowded = new Set<number>();
  let count = 0;
  for (let f = 0; f < faces; f++) {
    const from = faceStart[f];
    const to = faceStart[f + 1];
    for (let k = from; k < to; k++) {
      const a = corners[k];
      const b = corners[k + 1 < to ? k + 1 : from];
      const lo = a < b ? a : b;
      const hi = a < b ? b : a;
      let e = head[lo];
      while (e !== -1 && ends[e * 2 + 1] !== hi) e = next[e];
      if (e === -1) {
        e = count++;
        ends[e * 2] = lo;
        ends[e * 2 + 1] = hi;
        sides[e * 2] = f;
        next[e] = head[lo];
        head[lo] = e;
      } else if (sides[e * 2 + 1] === NO_FACE) sides[e * 2 + 1] = f;
      else crowded.add(e);
      cornerEdge[k] = e;
    }
  }
  const edges = ends.slice(0, count * 2);
  const edgeFaces = sides.slice(0, count * 2);
  const border = new Uint8Array(vertexCount);
  const borderEdge = new Uint8Array(count);
  const neighbourStart = new Uint32Array(vertexCount + 1);
  for (let e = 0; e < count; e++) {
    neighbourStart[edges[e * 2] + 1]++;
    neighbourStart[edges[e * 2 + 1] + 1]++;
    if (edgeFaces[e * 2 + 1] === NO_FACE || crowded.has(e)) {
      borderEdge[e] = 1;
      border[edges[e * 2]] = 1;
      border[edges[e * 2 + 1]] = 1;
    }
  }
  for (let v = 0; v < vertexCount; v++) neighbourStart[v + 1] += neighbourStart[v];
  const fill = neighbourStart.slice(0, vertexCount);
  const neighbours = new Uint32Array(count * 2);
  for (let e = 0; e < count; e++) {
    const a = edges[e * 2];
    const b = edges[e * 2 + 1];
    neighbours[fill[a]++] = b;
    neighbours[fill[b]++] = a;
  }
  return { edges, edgeFaces, cornerEdge, neighbourStart, neighbours, border, borderEdge };
}

/** Topology of a connectivity, computed once. */
export const topologyOf: (c: Connectivity) => Topology = perConnectivity(build);
