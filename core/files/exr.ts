import { zlibSync } from 'fflate';
import { halfBits } from '../maths/half';

/** Channel types by their number in the format. */
const [HALF, FLOAT] = [1, 2];
const [NOT_PACKED, ZIP] = [0, 3];
/** Rows that ZIP packs together. */
const ROWS = 16;

/** A pass beside the colour. */
export interface Layer {
  readonly name: string;
  /** One letter per channel. */
  readonly channels: string;
  /** Rows from the top. */
  readonly values: Float32Array;
}

export interface ExrForm {
  /** Of colour passes; positions and depths are always written in single precision. Default: float. */
  readonly precision?: 'half' | 'float';
  readonly packed?: boolean;
  /** Exposure factor for display; recorded in the file, whose light is stored without it. */
  readonly exposure?: number;
}

/** Passes that half floats are too coarse for. */
const EXACT = /^(depth|distance|position|motion)$/;

interface Channel {
  readonly name: string;
  readonly values: Float32Array;
  readonly at: number;
  readonly stride: number;
  readonly type: number;
}

/** A picture ready to be written: its rows in blocks, each of which is deflated separately, by any deflater. */
export interface ExrBlocks {
  readonly header: Uint8Array;
  /** Number of blocks, from the top. */
  readonly count: number;
  /** Rows per block; the last may have fewer. */
  readonly rows: number;
  /** Bytes of a block before deflating. */
  raw(block: number): Uint8Array;
}

/**
 * Writes radiance as an OpenEXR file (“OpenEXR File Layout”, Academy Software Foundation).
 *
 * @param values red, green, blue and alpha per pixel, premultiplied, rows from the top
 * @param layers further passes, with channels named `layer.X` as the format asks
 */
export function writeExr(...picture: Parameters<typeof exrBlocks>): Uint8Array<ArrayBuffer> {
  const blocks = exrBlocks(...picture);
  const packed = picture[4]?.packed ?? false;
  return exrFile(
    blocks,
    Array.from({ length: blocks.count }, (_, i) => {
      const raw = blocks.raw(i);
      return packed ? smaller(raw, zlibSync(apart(raw), { level: 4 })) : raw;
    }),
  );
}

/** The same as blocks of sixteen rows, for callers that deflate elsewhere: see `apart`, `smaller` and `exrFile`. */
export function exrBlocks(
  values: Float32Array,
  width: number,
  height: number,
  layers: readonly Layer[] = [],
  { precision = 'float', packed = false, exposure }: ExrForm = {},
): ExrBlocks {
  const channels: readonly Channel[] = [{ name: '', channels: 'RGBA', values }, ...layers]
    .flatMap((l) =>
      [...l.channels].map((c, at) => ({
        name: l.name ? `${l.name}.${c}` : c,
        values: l.values,
        at,
        stride: l.channels.length,
        type: precision === 'half' && !EXACT.test(l.name) ? HALF : FLOAT,
      })),
    )
    // Channels in alphabetical order, as readers expect.
    .sort((a, b) => (a.name < b.name ? -1 : 1));
  const rows = packed ? ROWS : 1;
  return {
    header: headerOf(channels, width, height, packed, exposure),
    count: Math.ceil(height / rows),
    rows,
    raw: (block) => rowsOf(channels, width, block * rows, Math.min(height, (block + 1) * rows)),
  };
}

/** The file, from its deflated blocks. */
export function exrFile({ header, rows }: ExrBlocks, blocks: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const table = 8 * blocks.length;
  const out = new Uint8Array(header.length + table + blocks.reduce((n, b) => n + 8 + b.length, 0));
  const view = new DataView(out.buffer);
  out.set(header);
  let at = header.length + table;
  blocks.forEach((block, i) => {
    view.setBigUint64(header.length + 8 * i, BigInt(at), true);
    view.setInt32(at, i * rows, true);
    view.setInt32(at + 4, block.length, true);
    out.set(block, at + 8);
    at += 8 + block.length;
  });
  return out;
}

/** Stores a block as it is if deflating would make it larger. */
export const smaller = (raw: Uint8Array, packed: Uint8Array): Uint8Array => (packed.length < raw.length ? packed : raw);

/** Header texts that describe the light. */
const TOLD =
  'Linear light of BT.709 primaries as it was before exposure. Multiplied by the attribute "exposure" it is the light of the picture before its view transform. depth.Z is square to the picture, distance.Z along the ray, both in metres; 1e10 where nothing is.';

function headerOf(
  channels: readonly Channel[],
  width: number,
  height: number,
  packed: boolean,
  exposure?: number,
): Uint8Array {
  // The header flag for names longer than 31 characters.
  const long = channels.some((c) => c.name.length > 31) ? 4 : 0;
  const header: number[] = [0x76, 0x2f, 0x31, 0x01, 2, long, 0, 0];
  const text = (s: string) => header.push(...[...s].map((c) => c.charCodeAt(0)), 0);
  const bytes = (view: ArrayBufferView) => header.push(...new Uint8Array(view.buffer));
  const attribute = (name: string, type: string, ...data: ArrayBufferView[]) => {
    text(name);
    text(type);
    bytes(Int32Array.of(data.reduce((n, d) => n + d.byteLength, 0)));
    data.forEach(bytes);
  };
  const list = channels.flatMap((c) => [
    Uint8Array.from([...c.name].map((x) => x.charCodeAt(0)).concat(0)),
    Int32Array.of(c.type),
    Uint8Array.of(0, 0, 0, 0),
    Int32Array.of(1, 1),
  ]);
  attribute('channels', 'chlist', ...list, Uint8Array.of(0));
  // White point and primaries of ITU-R BT.709, Maypole's working space.
  attribute('chromaticities', 'chromaticities', Float32Array.of(0.64, 0.33, 0.3, 0.6, 0.15, 0.06, 0.3127, 0.329));
  if (exposure !== undefined) {
    attribute(
      'comments',
      'string',
      Uint8Array.from(TOLD, (c) => c.charCodeAt(0)),
    );
    attribute('exposure', 'float', Float32Array.of(exposure));
  }
  attribute('compression', 'compression', Uint8Array.of(packed ? ZIP : NOT_PACKED));
  const window = Int32Array.of(0, 0, width - 1, height - 1);
  attribute('dataWindow', 'box2i', window);
  attribute('displayWindow', 'box2i', window);
  attribute('lineOrder', 'lineOrder', Uint8Array.of(0));
  attribute('pixelAspectRatio', 'float', Float32Array.of(1));
  attribute('screenWindowCenter', 'v2f', Float32Array.of(0, 0));
  attribute('screenWindowWidth', 'float', Float32Array.of(1));
  header.push(0);
  return Uint8Array.from(header);
}

/** Some rows; within a row, each channel is contiguous. */
function rowsOf(channels: readonly Channel[], width: number, from: number, to: number): Uint8Array {
  const row = channels.reduce((n, c) => n + (c.type === HALF ? 2 : 4) * width, 0);
  const out = new Uint8Array(row * (to - from));
  // One row of a channel, copied as bytes because it may begin at an odd address. All supported machines are
  // little-endian.
  const [halves, floats] = [new Uint16Array(width), new Float32Array(width)];
  const [halfBytes, floatBytes] = [new Uint8Array(halves.buffer), new Uint8Array(floats.buffer)];
  let at = 0;
  for (let y = from; y < to; y++)
    for (const { values, stride, at: first, type } of channels) {
      let i = stride * y * width + first;
      if (type === HALF) {
        // Radiance beyond the half-float range is clamped to its maximum, not written as infinity.
        for (let x = 0; x < width; x++, i += stride) {
          const value = values[i];
          halves[x] = halfBits(value > 65_504 ? 65_504 : value < -65_504 ? -65_504 : value);
        }
        out.set(halfBytes, at);
        at += halfBytes.length;
      } else {
        for (let x = 0; x < width; x++, i += stride) floats[x] = values[i];
        out.set(floatBytes, at);
        at += floatBytes.length;
      }
    }
  return out;
}

/**
 * The byte order that the format deflates: all even bytes, then all odd bytes, each as the difference from the one
 * before.
 */
export function apart(raw: Uint8Array): Uint8Array<ArrayBuffer> {
  const { length } = raw;
  const out = new Uint8Array(length);
  // Differences wrap round modulo 256; the first byte stays as it is, and the odd bytes go on from the last even one.
  let even = 0;
  for (let i = 0, to = 0; i < length; i += 2) {
    const byte = raw[i];
    out[to++] = byte - even + 128;
    even = byte;
  }
  let odd = even;
  for (let i = 1, to = (length + 1) >> 1; i < length; i += 2) {
    const byte = raw[i];
    out[to++] = byte - odd + 128;
    odd = byte;
  }
  if (length > 0) out[0] = raw[0];
  return out;
}
