import { refined, splitConnectivity, type Refinement } from './catmull-clark';
import { perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf } from './topology';

function build(c: Connectivity): Refinement {
  const { cornerEdge, edges } = topologyOf(c);
  const count = edges.length / 2;
  const faces = c.faceStart.length - 1;
  const start = new Uint32Array(c.vertexCount + count + faces + 1);
  const index: number[] = [];
  const weight: number[] = [];
  let made = 0;
  const row = (vertices: ArrayLike<number>) => {
    for (let i = 0; i < vertices.length; i++) {
      index.push(vertices[i]);
      weight.push(1 / vertices.length);
    }
    start[++made] = index.length;
  };
  for (let v = 0; v < c.vertexCount; v++) row([v]);
  for (let e = 0; e < count; e++) row([edges[2 * e], edges[2 * e + 1]]);
  for (let f = 0; f < faces; f++) row(c.corners.subarray(c.faceStart[f], c.faceStart[f + 1]));
  const quads = new Uint32Array(c.corners.length * 4);
  let q = 0;
  for (let f = 0; f < faces; f++)
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const before = k > c.faceStart[f] ? k - 1 : c.faceStart[f + 1] - 1;
      quads.set(
        [c.corners[k], c.vertexCount + cornerEdge[k], c.vertexCount + count + f, c.vertexCount + cornerEdge[before]],
        q,
      );
      q += 4;
    }
  const connectivity = splitConnectivity(c, made, quads);
  // The form keeps its edges, so each quad keeps the shading of its face.
  const shadingGroups = c.shadingGroups ? new Uint16Array(c.corners.length) : undefined;
  for (let f = 0; shadingGroups && f < faces; f++)
    shadingGroups.fill(c.shadingGroups![f], c.faceStart[f], c.faceStart[f + 1]);
  return {
    connectivity: { ...connectivity, ...(shadingGroups ? { shadingGroups } : {}) },
    start,
    index: Uint32Array.from(index),
    weight: Float64Array.from(weight),
  };
}

const refinementOf = perConnectivity(build);

/** Splits every face into one quad per corner, `levels` times, without changing the form. */
export function plainSplit(mesh: Mesh, levels: number): Mesh {
  let current = mesh;
  for (let l = 0; l < levels; l++) current = refined(current, refinementOf(current.connectivity));
  return current;
}
