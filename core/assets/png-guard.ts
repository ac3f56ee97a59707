import { Unzlib } from 'fflate';
import { FileTrouble } from './trouble';

/** Chunks that a picture is made of (W3C PNG, third edition, 5.6 and 11); all others say something about it. */
const NEEDED = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND']);
/** Numbers a pixel by the type of colour (table 8 there). */
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Bytes beyond what a picture needs that its packed data may have, and bytes that are unpacked at a time. */
const [SLACK, STEP] = [65_536, 16_384];

/**
 * The chunks of a PNG that its picture is made of, after a look whether its packed data is no more than a picture of its
 * size can need: a few thousand bytes unpack to gigabytes otherwise. What is left out (profiles, texts, which are packed
 * too) is unpacked by nobody.
 *
 * @param bytes begins with the signature and IHDR
 * @throws FileTrouble where it breaks off, or holds more than its size can need
 */
export function guardedPng(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  const packed: Uint8Array[] = [];
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (at + 12 + length > bytes.length)
      throw new FileTrouble('This picture is damaged: it breaks off. Fetch it again.');
    if (NEEDED.has(type)) kept.push(bytes.subarray(at, at + 12 + length));
    if (type === 'IDAT') packed.push(bytes.subarray(at + 8, at + 8 + length));
    at += 12 + length;
    if (type === 'IEND') break;
  }
  const [width, height, depth, colour] = [view.getUint32(16), view.getUint32(20), bytes[24], bytes[25]];
  const row = Math.ceil((width * depth * (CHANNELS[colour] ?? 4)) / 8);
  // Interlaced, it has a byte more for each row of each of seven passes, and rows that are not full.
  if (!unpacksWithin(packed, 2 * height * (row + 1) + SLACK))
    throw new FileTrouble(
      `This picture says that it is ${width} × ${height}, and holds far more than that can need. Save it again as PNG.`,
    );
  const out = new Uint8Array(kept.reduce((n, k) => n + k.length, 0));
  let at = 0;
  for (const chunk of kept) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}

/** Whether packed data unpacks to so many bytes at most; what cannot be unpacked is told by who unpacks it. */
function unpacksWithin(parts: readonly Uint8Array[], most: number): boolean {
  let bytes = 0;
  const unpack = new Unzlib((chunk) => (bytes += chunk.length));
  try {
    for (const part of parts)
      for (let i = 0; i < part.length; i += STEP) {
        unpack.push(part.subarray(i, i + STEP), false);
        if (bytes > most) return false;
      }
  } catch {
    return true;
  }
  return true;
}
