import { strFromU8, strToU8 } from 'fflate';
import type { Mesh } from '../shape/mesh';
import { Soup } from './soup';
import { checkCounts, FileTrouble } from '../assets/trouble';

const SIZES: Record<string, number> = {
  char: 1,
  uchar: 1,
  int8: 1,
  uint8: 1,
  short: 2,
  ushort: 2,
  int16: 2,
  uint16: 2,
  int: 4,
  uint: 4,
  int32: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

interface Property {
  readonly name: string;
  readonly type: string;
  /** Type of a list's length. */
  readonly count?: string;
}

interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}

/** A polygon with more corners is an error in the file. */
const MOST_CORNERS = 10_000;

/**
 * Reads a Polygon File Format file (G. Turk, 1994), text or binary of either byte order; texture coordinates come from
 * `texcoord` lists.
 */
export function readPly(bytes: Uint8Array): Mesh {
  const { format, elements, start } = header(bytes);
  const next =
    format === 'ascii' ? textReader(bytes, start) : binaryReader(bytes, start, format === 'binary_little_endian');
  const soup = new Soup();
  for (const element of elements) {
    for (let i = 0; i < element.count; i++) {
      const one: Record<string, number> = {};
      const lists: Record<string, number[]> = {};
      for (const p of element.properties) {
        if (p.count === undefined) one[p.name] = next(p.type);
        else {
          const n = next(p.count);
          if (!(n >= 0 && n <= MOST_CORNERS))
            throw new FileTrouble(
              `Face ${i} claims ${n} corners; the most is ${MOST_CORNERS}. Export the shape again.`,
            );
          lists[p.name] = Array.from({ length: n }, () => next(p.type));
        }
      }
      if (element.name === 'vertex') soup.point(one.x, one.y, one.z);
      if (element.name === 'face') {
        const corners = lists.vertex_indices ?? lists.vertex_index;
        if (!corners)
          throw new FileTrouble('The faces of this file do not say which points they join (vertex_indices).');
        soup.face(corners, lists.texcoord?.length === 2 * corners.length ? lists.texcoord : undefined);
      }
    }
  }
  return soup.finish();
}

function header(bytes: Uint8Array): { format: string; elements: Element[]; start: number } {
  const text = strFromU8(bytes.subarray(0, 65_536), true);
  const end = /end_header\r?\n/.exec(text);
  if (!/^ply\r?\n/.test(text) || !end)
    throw new FileTrouble('This is not a PLY file: it does not begin with “ply” and a header.');
  let format = '';
  const elements: Element[] = [];
  for (const line of text.slice(0, end.index).split(/\r?\n/)) {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'format') format = rest[0];
    if (word === 'element') elements.push({ name: rest[0], count: Number(rest[1]), properties: [] });
    if (word === 'property') {
      const property: Property =
        rest[0] === 'list' ? { count: rest[1], type: rest[2], name: rest[3] } : { type: rest[0], name: rest[1] };
      for (const t of [property.type, property.count])
        if (t !== undefined && !SIZES[t])
          throw new FileTrouble(`The file has numbers of a kind “${t}” that PLY does not know.`);
      if (elements.length === 0)
        throw new FileTrouble('The header of this PLY file lists a property before any element.');
      elements[elements.length - 1].properties.push(property);
    }
  }
  if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(format))
    throw new FileTrouble(`PLY in the format “${format}” is not known; use ascii or binary.`);
  const count = (name: string) => elements.find((e) => e.name === name)?.count ?? 0;
  checkCounts(count('vertex'), count('face'));
  for (const e of elements) checkCounts(e.count, 0);
  return { format, elements, start: end.index + end[0].length };
}

function textReader(bytes: Uint8Array, start: number): (type: string) => number {
  const words = strFromU8(bytes.subarray(start), true).split(/\s+/).filter(Boolean);
  let at = 0;
  return () => {
    if (at >= words.length) throw new FileTrouble(`The file breaks off after ${words.length} numbers; fetch it again.`);
    return Number(words[at++]);
  };
}

function binaryReader(bytes: Uint8Array, start: number, little: boolean): (type: string) => number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = start;
  return (type) => {
    const size = SIZES[type];
    if (at + size > view.byteLength)
      throw new FileTrouble(`The file breaks off after ${view.byteLength} bytes; fetch it again.`);
    const o = at;
    at += size;
    switch (type) {
      case 'char':
      case 'int8':
        return view.getInt8(o);
      case 'uchar':
      case 'uint8':
        return view.getUint8(o);
      case 'short':
      case 'int16':
        return view.getInt16(o, little);
      case 'ushort':
      case 'uint16':
        return view.getUint16(o, little);
      case 'int':
      case 'int32':
        return view.getInt32(o, little);
      case 'uint':
      case 'uint32':
        return view.getUint32(o, little);
      case 'float':
      case 'float32':
        return view.getFloat32(o, little);
      default:
        return view.getFloat64(o, little);
    }
  };
}

/** Writes binary PLY with whole polygons, and texture coordinates as `texcoord` lists. */
export function writePly({ connectivity: c, positions }: Mesh): Uint8Array {
  const faces = c.faceStart.length - 1;
  const head = strToU8(
    [
      'ply',
      'format binary_little_endian 1.0',
      'comment Maypole',
      `element vertex ${c.vertexCount}`,
      'property float x',
      'property float y',
      'property float z',
      `element face ${faces}`,
      'property list ushort uint vertex_indices',
      ...(c.uv ? ['property list ushort float texcoord'] : []),
      'end_header',
      '',
    ].join('\n'),
  );
  const out = new Uint8Array(
    head.length + 12 * c.vertexCount + faces * (c.uv ? 4 : 2) + c.corners.length * (c.uv ? 12 : 4),
  );
  out.set(head);
  const view = new DataView(out.buffer);
  let at = head.length;
  for (const x of positions) {
    view.setFloat32(at, x, true);
    at += 4;
  }
  for (let f = 0; f < faces; f++) {
    const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
    view.setUint16(at, to - from, true);
    at += 2;
    for (let k = from; k < to; k++, at += 4) view.setUint32(at, c.corners[k], true);
    if (!c.uv) continue;
    view.setUint16(at, 2 * (to - from), true);
    at += 2;
    for (let k = 2 * from; k < 2 * to; k++, at += 4) view.setFloat32(at, c.uv[k], true);
  }
  return out;
}
