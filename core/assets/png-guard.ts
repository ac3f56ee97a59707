import { Unzlib } from 'fflate';
import { FileTrouble } from './trouble';

/** Chunks that carry the picture (W3C PNG, third edition, 5.6 and 11); all others are metadata. */
const NEEDED = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND']);
/** Samples per pixel by colour type (table 8 there). */
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Bytes of packed data allowed beyond what the picture needs, and bytes inflated per step. */
const [SLACK, STEP] = [65_536, 16_384];

/**
 * Returns the picture chunks of a PNG, after checking that its packed data inflates to no more than its size can need:
 * otherwise a few thousand bytes inflate to gigabytes. Other chunks (profiles, texts, which are packed too) are dropped
 * and never inflated.
 *
 * @param bytes begins with the signature and IHDR
 * @throws FileTrouble if the file is cut off, or inflates to more than its size can need
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
  // An interlaced picture has seven passes, each with a filter byte per row and partial rows.
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

/**
 * Whether packed data inflates to at most this many bytes. Data that cannot be inflated is left to the decoder to
 * report.
 */
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
