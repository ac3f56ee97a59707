import type { CopyChannels } from './copy-channels';

import type { DistanceField } from './fractals/field';

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
  /** One number per face, length F: shading breaks where neighbouring faces differ. Absent: smooth everywhere. */
  readonly shadingGroups?: Uint16Array;
  /** One number per face, length F: its material slot, see FINISH. Absent: the main one everywhere. */
  readonly slots?: Uint8Array;
  /** Two numbers per corner: texture coordinates, 0…1 from side to side; may exceed 1 where they wrap. */
  readonly uv?: Float32Array;
  /** Lines through vertices, beside the faces or instead of them. */
  readonly curves?: Curves;
}

/** Polylines over the vertices of a shape. */
export interface Curves {
  /** K + 1 offsets into `points`; curve i has points[start[i]] … points[start[i+1]−1]. */
  readonly start: Uint32Array;
  /** Vertices along the curves; a closed curve does not repeat its first. */
  readonly points: Uint32Array;
  /** 1 if the curve is closed. Length K. */
  readonly closed: Uint8Array;
}

/** Material slots of faces. */
export const FINISH = { main: 0, inside: 1, rods: 2, joints: 3 } as const;

export interface Mesh {
  readonly connectivity: Connectivity;
  /** 3 · vertexCount coordinates in metres, y up. */
  readonly positions: Float32Array;
  /** Instances: connectivity and positions are then those of the first source. */
  readonly copies?: Copies;
  /** The exact form behind the faces, as long as they show it unchanged; a step that changes them drops it. */
  readonly field?: DistanceField;
}

/**
 * Many copies of a few shapes as a list, never as faces: a copy costs its matrix. Arrays have one entry per copy unless
 * noted.
 */
export interface Copies {
  /** The copied shapes; none of them has copies itself. */
  readonly sources: readonly Mesh[];
  /** Index of the source. */
  readonly source: Uint16Array;
  /** 16 numbers per copy: a column-major 4 × 4 matrix whose linear part is a rotation times a scale along each axis. */
  readonly matrices: Float32Array;
  /** Position in the last repeat, from 0 to `places` − 1; fractional while copies move on. */
  readonly order: Float32Array;
  readonly places: number;
  /** The place of the last repeat that a copy belongs to, if several share one; absent if each has its own. */
  readonly group?: Uint32Array;
  /** Seeds a copy's random values; absent, its index. */
  readonly ids?: Uint32Array;
  /** Delay of its source, as a fraction of the loop. */
  readonly late?: Float32Array;
  /** Values that copies have instead of their material's, by channel. */
  readonly channels?: CopyChannels;
  /**
   * Whose finish a copy has: 0 that of its own ribbon, k that of the ribbon `materialRibbons[k − 1]`; absent, 0 for
   * all.
   */
  readonly materialIndices?: Uint8Array;
  /** Identifiers of ribbons. */
  readonly materialRibbons?: readonly string[];
}

export function faceCount(c: Connectivity): number {
  return c.faceStart.length - 1;
}

/** A connectivity whose faces all have the same number of corners. */
export function uniformConnectivity(
  vertexCount: number,
  sides: number,
  corners: Uint32Array,
  more: Pick<Connectivity, 'shadingGroups' | 'uv'> = {},
): Connectivity {
  const faces = corners.length / sides;
  const faceStart = new Uint32Array(faces + 1);
  for (let i = 0; i <= faces; i++) faceStart[i] = i * sides;
  return { vertexCount, faceStart, corners, ...more };
}

/**
 * What was derived from a connectivity: table buffers, and further connectivities, which may have derived tables too.
 */
interface Derived {
  readonly buffers: ArrayBufferLike[];
  readonly connectivities: Connectivity[];
}

const derived = new WeakMap<Connectivity, Derived>();

/** Buffers of tables derived from a connectivity, which live as long as it does; may repeat. */
export function* derivedBuffers(c: Connectivity): Iterable<ArrayBufferLike> {
  const own = derived.get(c);
  if (!own) return;
  yield* own.buffers;
  for (const inner of own.connectivities) yield* derivedBuffers(inner);
}

/** Finds buffers and connectivities in a value, three levels deep, which is as deep as tables go. */
function gather(value: unknown, from: Connectivity, into: Derived, depth = 3): void {
  if (ArrayBuffer.isView(value)) into.buffers.push(value.buffer);
  if (
    depth === 0 ||
    typeof value !== 'object' ||
    value === null ||
    ArrayBuffer.isView(value) ||
    (Array.isArray(value) && typeof value[0] === 'number')
  )
    return;
  if (value !== from && 'faceStart' in value && 'corners' in value) into.connectivities.push(value as Connectivity);
  for (const x of Object.values(value)) gather(x, from, into, depth - 1);
}

/** Caches a value per connectivity for as long as that lives. */
export function perConnectivity<T>(make: (c: Connectivity) => T): (c: Connectivity) => T {
  const known = new WeakMap<Connectivity, T>();
  return (c) => {
    let value = known.get(c);
    if (value === undefined) {
      value = make(c);
      known.set(c, value);
      const own = derived.get(c) ?? { buffers: [], connectivities: [] };
      gather(value, c, own);
      derived.set(c, own);
    }
    return value;
  };
}
