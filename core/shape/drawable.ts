import { polylinesOf } from './curves/curves';
import { cornerNormals } from './normals';
import { perConnectivity, type Connectivity, type Mesh } from './mesh';
import { topologyOf } from './topology';

/** What drawing needs of a connectivity; shared by all frames that share it. */
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
  /** 2 numbers a piece of a curve, into drawn vertices. */
  readonly lines: Uint32Array;
  /** Ranges of `triangles` that share a material slot, see FINISH: first index, and count. */
  readonly groups: readonly { readonly slot: number; readonly start: number; readonly count: number }[];
  /** Texture coordinates, 2 numbers for each corner of `triangles`; absent if the shape has none. */
  readonly uv?: Float32Array;
  /** Without borders: back faces are never visible. */
  readonly closed: boolean;
}

/** Above this many triangles texture coordinates are not sent for drawing. */
const MOST_UV = 400_000;

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
  const faced = shadingGroups && c.curves ? new Set(corners) : null;
  if (faced) for (const v of new Set(c.curves!.points)) if (!faced.has(v)) source.push(v);
  let triangleCount = 0;
  for (let f = 0; f + 1 < faceStart.length; f++) triangleCount += faceStart[f + 1] - faceStart[f] - 2;
  const triangles = new Uint32Array(triangleCount * 3);
  const uv = c.uv && triangleCount <= MOST_UV ? new Float32Array(triangleCount * 6) : undefined;
  const groups: { slot: number; start: number; count: number }[] = [];
  let t = 0;
  const put = (k: number) => {
    if (uv) uv.set(c.uv!.subarray(2 * k, 2 * k + 2), 2 * t);
    triangles[t++] = cornerVertex[k];
  };
  for (const slot of c.slots ? [...new Set(c.slots)].sort((a, b) => a - b) : [0]) {
    const start = t;
    for (let f = 0; f + 1 < faceStart.length; f++) {
      if (c.slots && c.slots[f] !== slot) continue;
      for (let k = faceStart[f] + 1; k + 1 < faceStart[f + 1]; k++) {
        put(faceStart[f]);
        put(k);
        put(k + 1);
      }
    }
    if (t > start) groups.push({ slot, start, count: t - start });
  }
  const drawnOf = new Uint32Array(c.vertexCount);
  for (let v = source.length - 1; v >= 0; v--) drawnOf[source[v]] = v;
  const topology = topologyOf(c);
  const edges = topology.edges.map((v) => drawnOf[v]);
  const lines: number[] = [];
  for (const { vertices, closed: round } of polylinesOf(c)) {
    for (let i = 0; i + 1 < vertices.length; i++) lines.push(drawnOf[vertices[i]], drawnOf[vertices[i + 1]]);
    if (round && vertices.length > 2) lines.push(drawnOf[vertices[vertices.length - 1]], drawnOf[vertices[0]]);
  }
  const closed = !topology.borderEdge.includes(1);
  return {
    lines: Uint32Array.from(lines),
    groups,
    ...(uv ? { uv } : {}),
    vertexCount: source.length,
    source: Uint32Array.from(source),
    cornerVertex,
    triangles,
    edges,
    closed,
  };
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
