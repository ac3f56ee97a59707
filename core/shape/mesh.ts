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
  /** One number a face, length F: shading breaks where neighbouring faces differ. Absent: smooth all over. */
  readonly shadingGroups?: Uint16Array;
  /** One number a face, length F: which finish it has, see FINISH. Absent: the ribbon's own all over. */
  readonly slots?: Uint8Array;
  /** Two numbers a corner: place on the surface, 0…1 from side to side; may pass 1 where it comes round. */
  readonly uv?: Float32Array;
  /** Lines through vertices, beside the faces or in their place. */
  readonly curves?: Curves;
}

/** Polylines over the vertices of a shape. */
export interface Curves {
  /** K + 1 offsets into `points`; curve i has points[start[i]] … points[start[i+1]−1]. */
  readonly start: Uint32Array;
  /** Vertices along the curves; a closed curve does not name its first again. */
  readonly points: Uint32Array;
  /** 1 where the last point leads on to the first. Length K. */
  readonly closed: Uint8Array;
}

/** Finishes that a face can have. */
export const FINISH = { main: 0, inside: 1, rods: 2, joints: 3 } as const;

export interface Mesh {
  readonly connectivity: Connectivity;
  /** 3 · vertexCount coordinates in metres, y up. */
  readonly positions: Float32Array;
  /** Where it stands in many places: connectivity and positions are those of its first source then. */
  readonly copies?: Copies;
  /** The form its faces were made of, where they show it as it is; a step that changes them makes a shape without. */
  readonly field?: DistanceField;
}

/**
 * Many copies of a few shapes as a list, never as faces: what a copy costs is its matrix. Arrays have
 * one entry a copy unless said otherwise.
 */
export interface Copies {
  /** The shapes that are copied; none of them has copies itself. */
  readonly sources: readonly Mesh[];
  /** Which of the sources. */
  readonly source: Uint16Array;
  /** 16 numbers a copy: a 4 × 4 matrix by columns, its linear part a turn times a size along each axis. */
  readonly matrices: Float32Array;
  /** Place in the repeat that was made last, from 0 to `places` − 1; between whole numbers while copies move on. */
  readonly order: Float32Array;
  readonly places: number;
  /** Which place of the last repeat a copy belongs to, where several share one; absent where each has its own. */
  readonly group?: Uint32Array;
  /** What chance tells a copy by; absent, its number in the list. */
  readonly ids?: Uint32Array;
  /** How much later its source plays, as a share of the loop. */
  readonly late?: Float32Array;
  /** What copies have of their own in place of their finish, by channel. */
  readonly channels?: CopyChannels;
  /** Whose finish a copy wears: 0 that of the ribbon it is in, k that of the ribbon `wardrobe[k − 1]`; absent, all the first. */
  readonly materialIndices?: Uint8Array;
  /** Identifiers of ribbons. */
  readonly materialRibbons?: readonly string[];
}

export function faceCount(c: Connectivity): number {
  return c.faceStart.length - 1;
}

/** A connectivity in which all faces have the same number of corners. */
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

/** What was derived from a connectivity: buffers of tables, and further connectivities, from which more may have been. */
interface Derived {
  readonly buffers: ArrayBufferLike[];
  readonly connectivities: Connectivity[];
}

const derived = new WeakMap<Connectivity, Derived>();

/** Buffers of the tables that were derived from a connectivity and live as long as it does; some may come twice. */
export function* derivedBuffers(c: Connectivity): Iterable<ArrayBufferLike> {
  const own = derived.get(c);
  if (!own) return;
  yield* own.buffers;
  for (const inner of own.connectivities) yield* derivedBuffers(inner);
}

/** Finds buffers and connectivities in a value and in what it holds, three levels deep, which is as deep as tables go. */
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

/** Remembers a value for each connectivity for as long as that lives. */
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
