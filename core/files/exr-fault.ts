import { unzlibSync } from 'fflate';

/** Bytes of a sample by the type of its channel (“OpenEXR File Layout”: UINT, HALF, FLOAT). */
const SAMPLE = [4, 2, 4] as const;
/** Ways of packing that are written here, and the rows that each packs together. */
const ROWS: Readonly<Record<number, number>> = { 0: 1, 3: 16 };

/**
 * Reads an OpenEXR file of one part with rows of pixels from end to end, as far as that shows whether it is whole: its
 * head, its table of places, and every block unpacked to just the bytes that its rows have. By a block at a time, so
 * that whoever goes through it can do something else in between.
 *
 * @returns what is wrong with it, in a sentence; undefined where it is whole and of that size
 */
export function* exrFaultInSteps(file: Uint8Array, width: number, height: number): Generator<void, string | undefined> {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  if (file.length < 16 || view.getUint32(0, true) !== 20_000_630) return 'It is no OpenEXR picture.';
  const head = headOf(file, view);
  if (typeof head === 'string') return head;
  const { bytesOfPixel, packing, size } = head;
  if (size[0] !== width || size[1] !== height)
    return `It is ${size[0]} × ${size[1]}, and ${width} × ${height} was asked for.`;
  const rows = ROWS[packing];
  if (rows === undefined) return `It is packed in a way (${packing}) that is not expected.`;
  const blocks = Math.ceil(height / rows);
  if (head.end + 8 * blocks > file.length) return 'It breaks off in its table of places.';
  for (let i = 0; i < blocks; i++) {
    const at = Number(view.getBigUint64(head.end + 8 * i, true));
    if (at + 8 > file.length) return `Row ${i * rows} is beyond its end.`;
    if (view.getInt32(at, true) !== i * rows) return `Row ${i * rows} is not where its table says.`;
    const length = view.getInt32(at + 4, true);
    const raw = bytesOfPixel * width * Math.min(rows, height - i * rows);
    if (length < 0 || at + 8 + length > file.length || length > raw) return `Row ${i * rows} breaks off.`;
    if (length < raw) {
      try {
        const out = unzlibSync(file.subarray(at + 8, at + 8 + length), { out: new Uint8Array(raw) });
        if (out.length !== raw) return `Row ${i * rows} unpacks to another size.`;
        if (adler32(out) !== view.getUint32(at + 4 + length)) return `Row ${i * rows} is not what was packed.`;
      } catch {
        return `Row ${i * rows} cannot be unpacked.`;
      }
    }
    yield;
  }
  return undefined;
}

/** The check of what was packed (RFC 1950, 8.2), which the library does not look at. */
function adler32(bytes: Uint8Array): number {
  let [a, b] = [1, 0];
  for (let i = 0; i < bytes.length;) {
    // So many sums stay below 2³¹ (zlib: NMAX is 5552 for 32 bits without a sign).
    const end = Math.min(bytes.length, i + 3800);
    for (; i < end; i++) b += a += bytes[i];
    a %= 65_521;
    b %= 65_521;
  }
  return ((b << 16) | a) >>> 0;
}

interface Head {
  readonly bytesOfPixel: number;
  readonly packing: number;
  readonly size: readonly [width: number, height: number];
  /** Where the table of places begins. */
  readonly end: number;
}

function headOf(file: Uint8Array, view: DataView): Head | string {
  let at = 8;
  const word = () => {
    const end = file.indexOf(0, at);
    if (end < 0 || end - at > 255) return undefined;
    const text = String.fromCharCode(...file.subarray(at, end));
    at = end + 1;
    return text;
  };
  let bytesOfPixel = 0;
  let packing = -1;
  let size: [number, number] | undefined;
  for (;;) {
    const name = word();
    if (name === undefined) return 'Its head breaks off.';
    if (name === '') break;
    const type = word();
    if (type === undefined || at + 4 > file.length) return 'Its head breaks off.';
    const length = view.getInt32(at, true);
    at += 4;
    if (length < 0 || at + length > file.length) return 'Its head breaks off.';
    const next = at + length;
    if (name === 'channels')
      while (at < next && file[at] !== 0) {
        if (word() === undefined || at + 16 > next) return 'Its list of channels breaks off.';
        bytesOfPixel += SAMPLE[view.getInt32(at, true)] ?? NaN;
        at += 16;
      }
    else if (name === 'compression') packing = file[at];
    else if (name === 'dataWindow' && length === 16)
      size = [
        view.getInt32(at + 8, true) - view.getInt32(at, true) + 1,
        view.getInt32(at + 12, true) - view.getInt32(at + 4, true) + 1,
      ];
    at = next;
  }
  if (!(bytesOfPixel > 0) || !size) return 'Its head does not say what it holds.';
  return { bytesOfPixel, packing, size, end: at };
}
