import type { DrawableTopology } from '../stage/frame';

/** Vertices with uv: a vertex on a uv seam is duplicated for each uv. */
export interface UvSplit {
  /** Original vertex of each duplicate. */
  readonly more: Uint32Array;
  /** 3 numbers per triangle, indexing all of them. */
  readonly triangles: Uint32Array;
  /** 2 numbers per vertex. */
  readonly uv: Float32Array;
}

const known = new WeakMap<DrawableTopology, UvSplit>();

/** @param count vertices of the shape */
export function uvSplit(topology: DrawableTopology, count: number): UvSplit {
  let split = known.get(topology);
  if (!split) known.set(topology, (split = makeSplit(topology.triangles, topology.uv!, count)));
  return split;
}

function makeSplit(triangles: Uint32Array, uv: Float32Array, count: number): UvSplit {
  const places: number[] = new Array(2 * count).fill(NaN);
  const more: number[] = [];
  const byPlace = new Map<string, number>();
  const out = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) {
    const [vertex, u, v] = [triangles[i], uv[2 * i], uv[2 * i + 1]];
    if (places[2 * vertex] !== places[2 * vertex]) {
      places[2 * vertex] = u;
      places[2 * vertex + 1] = v;
    }
    if (places[2 * vertex] === u && places[2 * vertex + 1] === v) {
      out[i] = vertex;
      continue;
    }
    const key = `${vertex}/${u}/${v}`;
    let other = byPlace.get(key);
    if (other === undefined) {
      byPlace.set(key, (other = count + more.length));
      more.push(vertex);
      places.push(u, v);
    }
    out[i] = other;
  }
  return { more: Uint32Array.from(more), triangles: out, uv: Float32Array.from(places, (x) => (x === x ? x : 0)) };
}

/** Three numbers a vertex, with those of the vertices that are there again. */
export function splitTriples(values: Float32Array, { more }: UvSplit, into?: Float32Array): Float32Array {
  const length = values.length + 3 * more.length;
  const out = into?.length === length ? into : new Float32Array(length);
  out.set(values);
  for (let i = 0; i < more.length; i++)
    for (let k = 0; k < 3; k++) out[values.length + 3 * i + k] = values[3 * more[i] + k];
  return out;
}
