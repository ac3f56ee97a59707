import { emptyBox, growBy, type Box } from './bounds';
import { boundsOf } from '../shape/measure';
import { joined } from '../shape/join';
import { faceCount, type Connectivity, type Copies, type Mesh } from '../shape/mesh';
import { repeated } from '../shape/repeat';

export function copyCount(c: Copies): number {
  return c.source.length;
}

/** A shape with a list of copies; an empty shape if the list is empty. */
export function withCopies(copies: Copies): Mesh {
  const first = copies.sources[0];
  return { connectivity: first.connectivity, positions: first.positions, copies };
}

/** Number of visible faces: those of each source times its copies. */
export function facesShown(mesh: Mesh): number {
  if (!mesh.copies) return faceCount(mesh.connectivity);
  const { sources, source } = mesh.copies;
  const each = sources.map((s) => faceCount(s.connectivity));
  let sum = 0;
  for (const s of source) sum += each[s];
  return sum;
}

const centres = new WeakMap<Float32Array, Float32Array>();

/** Positions of copies: the last columns of their matrices, 3 numbers each; cached by matrices. */
export function centresOf({ matrices: m }: Pick<Copies, 'matrices'>): Float32Array {
  let out = centres.get(m);
  if (!out) {
    out = new Float32Array((3 * m.length) / 16);
    for (let i = 0, j = 0; i < out.length; i += 3, j += 16) {
      out[i] = m[j + 12];
      out[i + 1] = m[j + 13];
      out[i + 2] = m[j + 14];
    }
    centres.set(m, out);
  }
  return out;
}

/** Registers the positions of copies that were changed in place, or copied from others. */
export function knowCentres(matrices: Float32Array, points: Float32Array): void {
  centres.set(matrices, points);
}

/** Copies as bare points, for reading values at positions. */
export function pointsMesh(copies: Copies): Mesh {
  return {
    connectivity: { vertexCount: copyCount(copies), faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
    positions: centresOf(copies),
  };
}

/** Radius of a source: its farthest point from the origin. */
export function reachOf(mesh: Mesh): number {
  const p = mesh.positions;
  let most = 0;
  for (let i = 0; i < p.length; i += 3) most = Math.max(most, p[i] * p[i] + p[i + 1] * p[i + 1] + p[i + 2] * p[i + 2]);
  return Math.sqrt(most);
}

/** Diameter of each copy in metres: twice the radius of its source, times the mean of its three scales. */
export function copySizes({ sources, source, matrices: m }: Copies): Float32Array {
  const across = sources.map((s) => 2 * reachOf(s));
  const scale = (i: number) =>
    [0, 4, 8].reduce((sum, c) => sum + Math.hypot(m[16 * i + c], m[16 * i + c + 1], m[16 * i + c + 2]), 0) / 3;
  return Float32Array.from(source, (s, i) => across[s] * scale(i));
}

/** Points of a shape transformed by a copy's matrix, written to `out` from `at` on. */
export function transformInto(p: Float32Array, m: Float32Array, o: number, out: Float32Array, at: number): void {
  for (let i = 0; i < p.length; i += 3) {
    const [x, y, z] = [p[i], p[i + 1], p[i + 2]];
    out[at + i] = m[o] * x + m[o + 4] * y + m[o + 8] * z + m[o + 12];
    out[at + i + 1] = m[o + 1] * x + m[o + 5] * y + m[o + 9] * z + m[o + 13];
    out[at + i + 2] = m[o + 2] * x + m[o + 6] * y + m[o + 10] * z + m[o + 14];
  }
}

const made = new WeakMap<Copies, Mesh>();

/** Copies as real faces with points of their own. Without copies the very same shape. */
export function flattened(mesh: Mesh): Mesh {
  const { copies } = mesh;
  if (!copies) return mesh;
  let out = made.get(copies);
  if (!out) made.set(copies, (out = flatten(copies)));
  return out;
}

function flatten(copies: Copies): Mesh {
  const { sources, source, matrices } = copies;
  const n = source.length;
  const shown = [...source.keys()];
  const connectivity = connectivityOf(shown.map((i) => sources[source[i]].connectivity));
  const positions = new Float32Array(3 * connectivity.vertexCount);
  let at = 0;
  for (let i = 0; i < n; i++) {
    const p = sources[source[i]].positions;
    transformInto(p, matrices, 16 * i, positions, at);
    at += p.length;
  }
  return { connectivity, positions };
}

const numbers = new WeakMap<Connectivity, number>();
let next = 1;
const lists = new Map<string, Connectivity>();

/** Concatenated connectivity, the same object for the same list, so that moving copies keep it. */
function connectivityOf(list: readonly Connectivity[]): Connectivity {
  if (list.length === 0) return { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) };
  if (list.every((c) => c === list[0])) return repeated(list[0], list.length);
  const key = list
    .map((c) => {
      let id = numbers.get(c);
      if (!id) numbers.set(c, (id = next++));
      return id;
    })
    .join();
  let out = lists.get(key);
  if (!out) {
    if (lists.size >= 24) lists.delete(lists.keys().next().value!);
    out = joined(
      list.map((connectivity) => ({ connectivity, positions: new Float32Array(3 * connectivity.vertexCount) })),
    ).connectivity;
    lists.set(key, out);
  }
  return out;
}

/** Bounds of everything visible; null if there is nothing. */
export function boundsShown(mesh: Mesh): Box | null {
  const { copies } = mesh;
  if (!copies) {
    const own = boundsOf(mesh.positions);
    return own && { min: [...own.min], max: [...own.max] };
  }
  const boxes = copies.sources.map((s) => boundsOf(s.positions));
  const box = emptyBox();
  copies.source.forEach((s, i) => boxes[s] && growBy(box, boxes[s], copies.matrices, 16 * i));
  return box.min[0] <= box.max[0] ? box : null;
}
