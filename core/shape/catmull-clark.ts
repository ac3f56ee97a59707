import { faceCount, perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf } from './topology';

/**
 * One level of Catmull–Clark as a sparse matrix: new vertex i is Σ weight · old vertex over
 * start[i] … start[i+1]−1. It depends on connectivity alone, so a moving form pays only for the
 * product.
 */
interface Refinement {
  readonly connectivity: Connectivity;
  readonly start: Uint32Array;
  readonly index: Uint32Array;
  readonly weight: Float64Array;
}

/**
 * E. Catmull & J. Clark, "Recursively generated B-spline surfaces on arbitrary topological
 * meshes", Computer-Aided Design 10 (1978): face point = mean of its corners; edge point = mean
 * of the ends and the two face points; vertex point = (Q + 2R + (n−3)S)/n with Q the mean of the
 * face points and R the mean of the edge middles. Borders follow the cubic B-spline curve.
 */
function build(c: Connectivity): Refinement {
  const { faceStart, corners, vertexCount } = c;
  const topo = topologyOf(c);
  const faces = faceCount(c);
  const edgeCount = topo.edges.length / 2;
  const total = vertexCount + edgeCount + faces;
  // Rows are gathered in lists of (index, weight) per new vertex, in order.
  const start = new Uint32Array(total + 1);
  const index: number[] = [];
  const weight: number[] = [];
  const row = new Map<number, number>();
  const add = (v: number, w: number) => row.set(v, (row.get(v) ?? 0) + w);
  const addFace = (f: number, w: number) => {
    const n = faceStart[f + 1] - faceStart[f];
    for (let k = faceStart[f]; k < faceStart[f + 1]; k++) add(corners[k], w / n);
  };
  let made = 0;
  const endRow = () => {
    for (const [v, w] of row) {
      index.push(v);
      weight.push(w);
    }
    row.clear();
    start[++made] = index.length;
  };

  const facesAt = facesRoundVertices(c);
  const borderNeighbours = new Map<number, number[]>();
  for (let e = 0; e < edgeCount; e++) {
    if (!topo.borderEdge[e]) continue;
    const [a, b] = [topo.edges[e * 2], topo.edges[e * 2 + 1]];
    borderNeighbours.set(a, [...(borderNeighbours.get(a) ?? []), b]);
    borderNeighbours.set(b, [...(borderNeighbours.get(b) ?? []), a]);
  }

  for (let v = 0; v < vertexCount; v++) {
    const n = topo.neighbourStart[v + 1] - topo.neighbourStart[v];
    const around = borderNeighbours.get(v);
    if (n === 0) add(v, 1);
    else if (around) {
      if (around.length === 2) {
        add(v, 0.75);
        for (const u of around) add(u, 0.125);
      } else add(v, 1);
    } else {
      const from = facesAt.start[v];
      const to = facesAt.start[v + 1];
      for (let k = from; k < to; k++) addFace(facesAt.faces[k], 1 / (to - from) / n);
      for (let k = topo.neighbourStart[v]; k < topo.neighbourStart[v + 1]; k++) {
        add(v, 1 / n / n);
        add(topo.neighbours[k], 1 / n / n);
      }
      add(v, (n - 3) / n);
    }
    endRow();
  }
  for (let e = 0; e < edgeCount; e++) {
    const [a, b] = [topo.edges[e * 2], topo.edges[e * 2 + 1]];
    const share = topo.borderEdge[e] ? 0.5 : 0.25;
    add(a, share);
    add(b, share);
    if (!topo.borderEdge[e]) {
      addFace(topo.edgeFaces[e * 2], 0.25);
      addFace(topo.edgeFaces[e * 2 + 1], 0.25);
    }
    endRow();
  }
  for (let f = 0; f < faces; f++) {
    addFace(f, 1);
    endRow();
  }

  const quads = new Uint32Array(corners.length * 4);
  let q = 0;
  for (let f = 0; f < faces; f++) {
    const from = faceStart[f];
    const to = faceStart[f + 1];
    for (let k = from; k < to; k++) {
      const before = k > from ? k - 1 : to - 1;
      quads[q++] = corners[k];
      quads[q++] = vertexCount + topo.cornerEdge[k];
      quads[q++] = vertexCount + edgeCount + f;
      quads[q++] = vertexCount + topo.cornerEdge[before];
    }
  }
  const newStart = new Uint32Array(corners.length + 1);
  for (let i = 0; i <= corners.length; i++) newStart[i] = i * 4;
  return {
    connectivity: { vertexCount: total, faceStart: newStart, corners: quads },
    start,
    index: Uint32Array.from(index),
    weight: Float64Array.from(weight),
  };
}

function facesRoundVertices(c: Connectivity): { start: Uint32Array; faces: Uint32Array } {
  const start = new Uint32Array(c.vertexCount + 1);
  for (const v of c.corners) start[v + 1]++;
  for (let v = 0; v < c.vertexCount; v++) start[v + 1] += start[v];
  const fill = start.slice(0, c.vertexCount);
  const faces = new Uint32Array(c.corners.length);
  for (let f = 0; f + 1 < c.faceStart.length; f++)
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) faces[fill[c.corners[k]]++] = f;
  return { start, faces };
}

const refinementOf = perConnectivity(build);

/** Faces after `levels` of Catmull–Clark: a face of n corners becomes n, then each four. */
export function facesAfter(c: Connectivity, levels: number): number {
  return levels === 0 ? faceCount(c) : c.corners.length * 4 ** (levels - 1);
}

/** The mesh subdivided `levels` times (a whole number ≥ 0). Shading becomes smooth all over. */
export function catmullClark(mesh: Mesh, levels: number): Mesh {
  let current = mesh;
  for (let l = 0; l < levels; l++) {
    const r = refinementOf(current.connectivity);
    const from = current.positions;
    const to = new Float32Array(r.connectivity.vertexCount * 3);
    const { start, index, weight } = r;
    for (let i = 0; i + 1 < start.length; i++) {
      let x = 0;
      let y = 0;
      let z = 0;
      for (let k = start[i]; k < start[i + 1]; k++) {
        const j = index[k] * 3;
        const w = weight[k];
        x += w * from[j];
        y += w * from[j + 1];
        z += w * from[j + 2];
      }
      to[i * 3] = x;
      to[i * 3 + 1] = y;
      to[i * 3 + 2] = z;
    }
    current = { connectivity: r.connectivity, positions: to };
  }
  return current;
}
