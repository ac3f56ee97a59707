import { refined, type Refinement } from './catmull-clark';
import { faceCount, perConnectivity, uniformConnectivity, type Connectivity, type Mesh } from './mesh';
import { NO_FACE, topologyOf } from './topology';

/**
 * One level of Loop's scheme for triangles (C. Loop, “Smooth subdivision surfaces based on
 * triangles”, 1987) with Warren's weights: 3/16 at valence 3, else 3/(8n); new edge points are
 * ⅜ of the ends and ⅛ of the two corners across. Borders follow the cubic B-spline curve.
 */
function build(c: Connectivity, smooth: boolean): Refinement {
  const topo = topologyOf(c);
  const edges = topo.borderEdge.length;
  const { vertexCount, faceStart, corners } = c;
  const start: number[] = [0];
  const index: number[] = [];
  const weight: number[] = [];
  const add = (v: number, w: number) => {
    index.push(v);
    weight.push(w);
  };
  const border: number[][] = Array.from({ length: vertexCount }, () => []);
  for (let e = 0; e < edges; e++)
    if (topo.borderEdge[e]) {
      border[topo.edges[2 * e]].push(topo.edges[2 * e + 1]);
      border[topo.edges[2 * e + 1]].push(topo.edges[2 * e]);
    }
  for (let v = 0; v < vertexCount; v++) {
    const [from, to] = [topo.neighbourStart[v], topo.neighbourStart[v + 1]];
    const n = to - from;
    if (!smooth || n === 0 || (border[v].length > 0 && border[v].length !== 2)) add(v, 1);
    else if (border[v].length === 2) {
      add(v, 0.75);
      for (const u of border[v]) add(u, 0.125);
    } else {
      const beta = n === 3 ? 3 / 16 : 3 / (8 * n);
      add(v, 1 - n * beta);
      for (let k = from; k < to; k++) add(topo.neighbours[k], beta);
    }
    start.push(index.length);
  }
  const across = (f: number, a: number, b: number) => {
    for (let k = faceStart[f]; k < faceStart[f + 1]; k++) if (corners[k] !== a && corners[k] !== b) return corners[k];
    return a;
  };
  for (let e = 0; e < edges; e++) {
    const [a, b] = [topo.edges[2 * e], topo.edges[2 * e + 1]];
    const [f, g] = [topo.edgeFaces[2 * e], topo.edgeFaces[2 * e + 1]];
    if (!smooth || topo.borderEdge[e] || g === NO_FACE) {
      add(a, 0.5);
      add(b, 0.5);
    } else {
      add(a, 0.375);
      add(b, 0.375);
      add(across(f, a, b), 0.125);
      add(across(g, a, b), 0.125);
    }
    start.push(index.length);
  }
  const faces = faceCount(c);
  const triangles = new Uint32Array(12 * faces);
  const uv = c.uv ? new Float32Array(24 * faces) : undefined;
  const slots = c.slots ? new Uint8Array(4 * faces) : undefined;
  for (let f = 0; f < faces; f++) {
    const k = faceStart[f];
    const [a, b, d] = [corners[k], corners[k + 1], corners[k + 2]];
    const [ab, bd, da] = [0, 1, 2].map((i) => vertexCount + topo.cornerEdge[k + i]);
    triangles.set([a, ab, da, ab, b, bd, da, bd, d, ab, bd, da], 12 * f);
    if (slots) slots.fill(c.slots![f], 4 * f, 4 * f + 4);
    if (uv)
      for (let axis = 0; axis < 2; axis++) {
        const [x, y, z] = [0, 1, 2].map((i) => c.uv![2 * (k + i) + axis]);
        const [xy, yz, zx] = [(x + y) / 2, (y + z) / 2, (z + x) / 2];
        [x, xy, zx, xy, y, yz, zx, yz, z, xy, yz, zx].forEach((w, i) => (uv[24 * f + 2 * i + axis] = w));
      }
  }
  return {
    connectivity: uniformConnectivity(vertexCount + edges, 3, triangles, {
      ...(uv ? { uv } : {}),
      ...(slots ? { slots } : {}),
    }),
    start: Uint32Array.from(start),
    index: Uint32Array.from(index),
    weight: Float64Array.from(weight),
  };
}

const smoothed = perConnectivity((c: Connectivity) => build(c, true));
const split = perConnectivity((c: Connectivity) => build(c, false));

/** A mesh of triangles subdivided `levels` times, each into four; smooth by Loop's scheme, or only split. */
export function loopSubdivision(mesh: Mesh, levels: number, smooth: boolean): Mesh {
  let current = mesh;
  for (let l = 0; l < levels; l++) current = refined(current, (smooth ? smoothed : split)(current.connectivity));
  return current;
}
