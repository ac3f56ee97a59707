import { cornerNormals } from './normals';
import { perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf } from './topology';

/** What drawing needs of a connectivity; the same for every frame that shares it. */
export interface DrawTopology {
  /** Drawn vertices: a vertex on a shading break is drawn once for each shading group. */
  readonly vertexCount: number;
  /** Mesh vertex of each drawn vertex. */
  readonly source: Uint32Array;
  /** Drawn vertex of each corner. */
  readonly cornerVertex: Uint32Array;
  /** 3 numbers a triangle, into drawn vertices. */
  readonly triangles: Uint32Array;
  /** 2 numbers an edge of the polygons, into drawn vertices. */
  readonly edges: Uint32Array;
  /** True without any border: nobody looks at the backs of its faces. */
  readonly closed: boolean;
}

function build(c: Connectivity): DrawTopology {
  const { faceStart, corners, shadingGroups } = c;
  const cornerVertex = new Uint32Array(corners.length);
  const source: number[] = [];
  if (shadingGroups) {
    const byPair = new Map<number, number>();
    for (let f = 0; f + 1 < faceStart.length; f++)
      for (let k = faceStart[f]; k < faceStart[f + 1]; k++) {
        const pair = corners[k] * 65536 + shadingGroups[f];
        let v = byPair.get(pair);
        if (v === undefined) {
          v = source.length;
          source.push(corners[k]);
          byPair.set(pair, v);
        }
        cornerVertex[k] = v;
      }
  } else {
    cornerVertex.set(corners);
    for (let v = 0; v < c.vertexCount; v++) source.push(v);
  }
  let triangleCount = 0;
  for (let f = 0; f + 1 < faceStart.length; f++) triangleCount += faceStart[f + 1] - faceStart[f] - 2;
  const triangles = new Uint32Array(triangleCount * 3);
  let t = 0;
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let k = faceStart[f] + 1; k + 1 < faceStart[f + 1]; k++) {
      triangles[t++] = cornerVertex[faceStart[f]];
      triangles[t++] = cornerVertex[k];
      triangles[t++] = cornerVertex[k + 1];
    }
  const drawnOf = new Uint32Array(c.vertexCount);
  for (let v = source.length - 1; v >= 0; v--) drawnOf[source[v]] = v;
  const topology = topologyOf(c);
  const edges = topology.edges.map((v) => drawnOf[v]);
  const closed = !topology.borderEdge.includes(1);
  return { vertexCount: source.length, source: Uint32Array.from(source), cornerVertex, triangles, edges, closed };
}

/** Draw topology of a connectivity, computed once. */
export const drawTopologyOf: (c: Connectivity) => DrawTopology = perConnectivity(build);

/** Positions and unit normals of the drawn vertices, 3 numbers each, in fresh buffers. */
export function drawBuffers(mesh: Mesh): { positions: Float32Array; normals: Float32Array } {
  const draw = drawTopologyOf(mesh.connectivity);
  const normals = cornerNormals(mesh.connectivity, mesh.positions, draw.cornerVertex, draw.vertexCount);
  if (!mesh.connectivity.shadingGroups) return { positions: mesh.positions.slice(), normals };
  const positions = new Float32Array(draw.vertexCount * 3);
  for (let v = 0; v < draw.vertexCount; v++) {
    const s = draw.source[v] * 3;
    positions[v * 3] = mesh.positions[s];
    positions[v * 3 + 1] = mesh.positions[s + 1];
    positions[v * 3 + 2] = mesh.positions[s + 2];
  }
  return { positions, normals };
}
