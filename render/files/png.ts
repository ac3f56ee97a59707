import { deflateSync } from 'node:zlib';
import { decode } from 'fast-png';
import { inEightBits } from '@maypole/core/develop/develop';

/** A decoded frame image: 8 or 16 bits, red, green, blue, alpha, rows from the top. */
export interface DecodedPng {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint16Array;
}

/** Decodes a frame image. They are made here and in browsers, so few variants occur. */
export function decodePng(file: Uint8Array): DecodedPng {
  const { width, height, data, channels, depth } = decode(file);
  if (channels === 4 && (depth === 8 || depth === 16)) return { width, height, data: data as Uint8Array | Uint16Array };
  if (channels === 3 && depth === 8) {
    const out = new Uint8Array(4 * width * height).fill(255);
    for (let i = 0; i < width * height; i++) for (let k = 0; k < 3; k++) out[4 * i + k] = data[3 * i + k];
    return { width, height, data: out };
  }
  throw new RangeError(`A sheet has ${channels} channels of ${depth} bits, which is not expected.`);
}

/** The same in 8 bits. */
export function eightBits({ data, width }: DecodedPng): Uint8Array {
  if (data instanceof Uint8Array) return data;
  const out = inEightBits(data, width);
  return new Uint8Array(out.buffer, out.byteOffset, out.length);
}

const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c;
});

function crc(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = TABLE[(c ^ b) & 255] ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

/** Bytes of the signature and the first chunk, IHDR. */
const HEAD = 33;

/** A PNG chunk: length, type, data and checksum. */
function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  check.writeUInt32BE(crc(body));
  return Buffer.concat([length, body, check]);
}

const withChunks = (png: Uint8Array, ...chunks: Buffer[]) =>
  Buffer.concat([png.subarray(0, HEAD), ...chunks, png.subarray(HEAD)]);

/** A PNG tagged as sRGB (W3C PNG, third edition, 11.3.2.5 with the gAMA values it asks for). */
export function taggedSrgb(png: Uint8Array): Uint8Array {
  // Intent: perceptual; gamma 1/2.2 in hundred-thousandths.
  return withChunks(png, chunk('sRGB', Uint8Array.of(0)), chunk('gAMA', Uint8Array.of(0, 0, 0xb1, 0x8f)));
}

/** A PNG with a colour profile (iCCP). */
export function withProfile(png: Uint8Array, profile: Uint8Array): Uint8Array {
  return withChunks(png, chunk('iCCP', Buffer.concat([Buffer.from('sRGB\0\0', 'latin1'), deflateSync(profile)])));
}
