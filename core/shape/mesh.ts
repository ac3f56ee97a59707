/**
 * A polygon mesh. Connectivity and positions are separate objects: a form that moves gives new
 * positions on the same connectivity object, so that everything derived from connectivity alone
 * (neighbours, edges, subdivision tables, triangles) is computed once and found by identity.
 * All buffers are immutable once returned.
 */
export interface Connectivity {
  readonly vertexCount: number;
  /** F + 1 offsets into `corners`; face i has corners faceStart[i] … faceStart[i+1]−1. */
  readonly faceStart: Uint32Array;
  /** Vertex of each corner, counter-clockwise seen from outside. */
  readonly corners: Uint32Array;
  /** One number a face, length F: shading breaks where neighbouring faces differ. Absent: smooth all over. */
  readonly shadingGroups?: Uint16Array;
}

export interface Mesh {
  readonly connectivity: Connectivity;
  /** 3 · vertexCount coordinates in metres, y up. */
  readonly positions: Float32Array;
}

export function faceCount(c: Connectivity): number {
  return c.faceStart.length - 1;
}

/** A connectivity in which all faces have the same number of corners. */
export function uniformConnectivity(vertexCount: number, sides: number, corners: Uint32Array, shadingGroups?: Uint16Array): Connectivity {
  const faces = corners.length / sides;
  const faceStart = new Uint32Array(faces + 1);
  for (let i = 0; i <= faces; i++) faceStart[i] = i * sides;
  return { vertexCount, faceStart, corners, shadingGroups };
}

/** Remembers a value for each connectivity for as long as that lives. */
export function perConnectivity<T>(make: (c: Connectivity) => T): (c: Connectivity) => T {
  const known = new WeakMap<Connectivity, T>();
  return (c) => {
    let value = known.get(c);
    if (value === undefined) {
      value = make(c);
      known.set(c, value);
    }
    return value;
  };
}
