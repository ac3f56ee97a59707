import { unzlibSync } from 'fflate';

/** Bytes per sample by channel type (“OpenEXR File Layout”: UINT, HALF, FLOAT). */
const SAMPLE = [4, 2, 4] as const;
/** Compression methods that Maypole writes, and the rows that each packs together. */
const ROWS: Readonly<Record<number, number>> = { 0: 1, 3: 16 };

/**
 * Checks that a single-part scan-line OpenEXR file is whole: its header, its offset table, and every block inflated to
 * exactly the bytes its rows need. A generator, one block at a time, so that the caller can do other work in between.
 *
 * @returns what is wrong, as a sentence; undefined if the file is whole and of that size
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

/** Checksum of the packed data (RFC 1950, 8.2), which the library does not verify. */
function adler32(bytes: Uint8Array): number {
  let [a, b] = [1, 0];
  for (let i = 0; i < bytes.length;) {
    // So many sums stay below 2³¹ (zlib: NMAX is 5552 for unsigned 32 bits).
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
  /** Where the offset table begins. */
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
