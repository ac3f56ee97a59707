import { averaged, averagesOf } from './averages';
import { kernels } from '../kernels/kernels';
import { faceCount, perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf, type Topology } from './topology';

/**
 * One level of Catmull–Clark as a sparse matrix: new vertex i is Σ weight · old vertex over
 * start[i] … start[i+1]−1. It depends on connectivity alone, so a moving form pays only for the
 * product.
 */
export interface Refinement {
  readonly connectivity: Connectivity;
  readonly start: Uint32Array;
  readonly index: Uint32Array;
  readonly weight: Float64Array;
}

/**
 * E. Catmull & J. Clark, "Recursively generated B-spline surfaces on arbitrary topological
 * meshes", Computer-Aided Design 10 (1978): face point = mean of its corners; edge point = mean
 * of the ends and the two face points; vertex point = (Q + 2R + (n−3)S)/n with Q the mean of the
 * face points and R the mean of the edge middles. Borders follow the cubic B-spline curve, and so do
 * creases for as many levels as they are sharp; where three meet, the vertex stays (T. DeRose, M. Kass
 * & T. Truong, "Subdivision surfaces in character animation", SIGGRAPH 1998).
 *
 * @param sharp sharpness of each edge, 0 for none
 */
function build(c: Connectivity, sharp: Float32Array | null = null): Refinement {
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
    const creases = sharp && creasesAt(v, topo, sharp);
    // A crease of sharpness below 1 blends crease and smooth rule.
    const hard = around ? 1 : creases ? Math.min(1, creases.sharpness) : 0;
    if (n === 0) add(v, 1);
    else if (hard > 0) {
      const line = around && !(creases && creases.ends.length > 2) ? around : (creases?.ends ?? []);
      if (line.length === 2) {
        add(v, 0.75 * hard);
        for (const u of line) add(u, 0.125 * hard);
      } else add(v, hard);
    }
    if (n > 0 && hard < 1) {
      const soft = 1 - hard;
      const from = facesAt.start[v];
      const to = facesAt.start[v + 1];
      for (let k = from; k < to; k++) addFace(facesAt.faces[k], soft / (to - from) / n);
      for (let k = topo.neighbourStart[v]; k < topo.neighbourStart[v + 1]; k++) {
        add(v, soft / n / n);
        add(topo.neighbours[k], soft / n / n);
      }
      add(v, (soft * (n - 3)) / n);
    }
    endRow();
  }
  for (let e = 0; e < edgeCount; e++) {
    const [a, b] = [topo.edges[e * 2], topo.edges[e * 2 + 1]];
    const hard = topo.borderEdge[e] ? 1 : sharp ? Math.min(1, sharp[e]) : 0;
    const share = 0.25 + 0.25 * hard;
    add(a, share);
    add(b, share);
    if (hard < 1) {
      addFace(topo.edgeFaces[e * 2], 0.25 * (1 - hard));
      addFace(topo.edgeFaces[e * 2 + 1], 0.25 * (1 - hard));
    }
    endRow();
  }
  for (let f = 0; f < faces; f++) {
    addFace(f, 1);
    endRow();
  }

  return {
    connectivity: splitConnectivity(c, total, cornerQuads(c, topo)),
    start,
    index: Uint32Array.from(index),
    weight: Float64Array.from(weight),
  };
}

/** One quad for each corner of a face: vertex, edge point, face point, edge point before. */
function cornerQuads({ faceStart, corners, vertexCount }: Connectivity, topo: Topology): Uint32Array {
  const edgeCount = topo.edges.length / 2;
  const quads = new Uint32Array(corners.length * 4);
  let q = 0;
  for (let f = 0; f + 1 < faceStart.length; f++) {
    const [from, to] = [faceStart[f], faceStart[f + 1]];
    for (let k = from; k < to; k++) {
      const before = k > from ? k - 1 : to - 1;
      quads[q++] = corners[k];
      quads[q++] = vertexCount + topo.cornerEdge[k];
      quads[q++] = vertexCount + edgeCount + f;
      quads[q++] = vertexCount + topo.cornerEdge[before];
    }
  }
  return quads;
}

/** The quads of every corner of a face, with the face's material slot and interpolated texture coordinates. */
export function splitConnectivity(c: Connectivity, vertexCount: number, quads: Uint32Array): Connectivity {
  const faceStart = new Uint32Array(c.corners.length + 1);
  for (let i = 0; i <= c.corners.length; i++) faceStart[i] = i * 4;
  const uv = c.uv ? new Float32Array(8 * c.corners.length) : undefined;
  const slots = c.slots ? new Uint8Array(c.corners.length) : undefined;
  for (let f = 0; (uv || slots) && f + 1 < c.faceStart.length; f++) {
    const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
    if (slots) slots.fill(c.slots![f], from, to);
    if (!uv) continue;
    for (let axis = 0; axis < 2; axis++) {
      const at = (k: number) => c.uv![2 * k + axis];
      let mean = 0;
      for (let k = from; k < to; k++) mean += at(k) / (to - from);
      for (let k = from; k < to; k++) {
        const [before, after] = [k > from ? k - 1 : to - 1, k + 1 < to ? k + 1 : from];
        const places = [at(k), (at(k) + at(after)) / 2, mean, (at(before) + at(k)) / 2];
        for (let i = 0; i < 4; i++) uv[8 * k + 2 * i + axis] = places[i];
      }
    }
  }
  return { vertexCount, faceStart, corners: quads, ...(uv ? { uv } : {}), ...(slots ? { slots } : {}) };
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

const refinementOf = perConnectivity((c: Connectivity) => build(c));

/** Number of faces after `levels` of Catmull–Clark: a face of n corners becomes n quads, then each four. */
export function facesAfter(c: Connectivity, levels: number): number {
  return levels === 0 ? faceCount(c) : c.corners.length * 4 ** (levels - 1);
}

/** Creases at a vertex: their far ends, and the vertex's sharpness. Fewer than two do not count. */
function creasesAt(
  v: number,
  topo: ReturnType<typeof topologyOf>,
  sharp: Float32Array,
): { ends: number[]; sharpness: number } | null {
  const list = edgesAt(topo, v);
  const ends: number[] = [];
  let sum = 0;
  for (const e of list) {
    if (sharp[e] <= 0) continue;
    ends.push(topo.edges[2 * e] === v ? topo.edges[2 * e + 1] : topo.edges[2 * e]);
    sum += sharp[e];
  }
  return ends.length < 2 ? null : { ends, sharpness: sum / ends.length };
}

const edgeLists = new WeakMap<object, number[][]>();

function edgesAt(topo: ReturnType<typeof topologyOf>, v: number): readonly number[] {
  let lists = edgeLists.get(topo);
  if (!lists) {
    lists = Array.from({ length: topo.neighbourStart.length - 1 }, () => []);
    for (let e = 0; e < topo.borderEdge.length; e++) {
      lists[topo.edges[2 * e]].push(e);
      lists[topo.edges[2 * e + 1]].push(e);
    }
    edgeLists.set(topo, lists);
  }
  return lists[v];
}

interface Creased {
  readonly refinement: Refinement;
  /** Sharpness of the new edges; null once none is sharp. */
  readonly sharp: Float32Array | null;
}

const creased = new WeakMap<Connectivity, Map<string, Creased>>();

function creasedRefinement(c: Connectivity, sharp: Float32Array): Creased {
  let own = creased.get(c);
  if (!own) creased.set(c, (own = new Map()));
  const key = sharp.join();
  let out = own.get(key);
  if (out) return out;
  const refinement = build(c, sharp);
  const topo = topologyOf(c);
  const next = topologyOf(refinement.connectivity);
  const left = new Float32Array(next.borderEdge.length);
  let any = false;
  for (let e = 0; e < sharp.length; e++) {
    if (sharp[e] <= 1) continue;
    const middle = c.vertexCount + e;
    for (const child of edgesAt(next, middle)) {
      const far = next.edges[2 * child] === middle ? next.edges[2 * child + 1] : next.edges[2 * child];
      if (far !== topo.edges[2 * e] && far !== topo.edges[2 * e + 1]) continue;
      left[child] = sharp[e] - 1;
      any = true;
    }
  }
  out = { refinement, sharp: any ? left : null };
  if (own.size > 12) own.clear();
  own.set(key, out);
  return out;
}

/**
 * The mesh subdivided `levels` times (a whole number ≥ 0). Shading becomes smooth all over.
 *
 * @param sharpness of each edge of the mesh's topology, 0 for none: a crease for that many levels
 */
export function catmullClark(mesh: Mesh, levels: number, sharpness: Float32Array | null = null): Mesh {
  let current = mesh;
  let sharp = sharpness;
  for (let l = 0; l < levels; l++) {
    const step: Creased = sharp
      ? creasedRefinement(current.connectivity, sharp)
      : { refinement: refinementOf(current.connectivity), sharp: null };
    const quick =
      !sharp && !step.sharp && current.connectivity.vertexCount >= LEAST_ROWS
        ? averagesOf(current.connectivity).averages
        : null;
    const positions = quick && averaged(current, quick);
    current = positions ? { connectivity: step.refinement.connectivity, positions } : refined(current, step.refinement);
    sharp = step.sharp;
  }
  return current;
}

/** Below this many rows, plain TypeScript finishes before buffers would be copied. */
const LEAST_ROWS = 256;
const asFloat32 = (weights: ArrayLike<number>) => Float32Array.from(weights);

/** Positions on a refinement: one product with its matrix. */
export function refined(mesh: Mesh, r: Refinement): Mesh {
  const from = mesh.positions;
  const rows = r.connectivity.vertexCount;
  const k = rows >= LEAST_ROWS ? kernels() : null;
  if (k) {
    k.begin();
    const [start, index, weight] = [k.keep(r.start), k.keep(r.index), k.keep(r.weight, asFloat32)];
    const source = k.put(from);
    const target = k.room(12 * rows);
    k.run.product(start, index, weight, rows, source, target);
    return { connectivity: r.connectivity, positions: k.take(target, 3 * rows) };
  }
  const to = new Float32Array(rows * 3);
  const { start, index, weight } = r;
  for (let i = 0; i < rows; i++) {
    let [x, y, z] = [0, 0, 0];
    for (let e = start[i]; e < start[i + 1]; e++) {
      const j = index[e] * 3;
      const w = weight[e];
      x += w * from[j];
      y += w * from[j + 1];
      z += w * from[j + 2];
    }
    to[i * 3] = x;
    to[i * 3 + 1] = y;
    to[i * 3 + 2] = z;
  }
  return { connectivity: r.connectivity, positions: to };
}
