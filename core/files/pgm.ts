import { strToU8 } from 'fflate';
import type { Picture } from '../assets/asset';
import { FileTrouble } from '../assets/trouble';

const MOST_SIDE = 8192;

/** Reads a binary portable graymap (netpbm's P5), 8 or 16 bits. */
export function readPgm(bytes: Uint8Array): Picture {
  let at = 2;
  const number = (): number => {
    const text: number[] = [];
    for (; at < bytes.length && text.length < 12; at++) {
      const b = bytes[at];
      if (b === 0x23) while (at < bytes.length && bytes[at] !== 10) at++;
      else if (b > 32) text.push(b);
      else if (text.length > 0) break;
    }
    return Number(String.fromCharCode(...text));
  };
  if (bytes[0] !== 0x50 || bytes[1] !== 0x35) throw new FileTrouble('This is not a portable graymap (P5).');
  const [width, height, most] = [number(), number(), number()];
  if (
    !Number.isInteger(width) ||
    !Number.isInteger(height) ||
    width < 1 ||
    height < 1 ||
    width > MOST_SIDE ||
    height > MOST_SIDE
  )
    throw new FileTrouble(`A picture of ${width} × ${height} cannot be used; the most is ${MOST_SIDE} a side.`);
  if (!Number.isInteger(most) || most < 1 || most > 65_535)
    throw new FileTrouble(`The picture counts to ${most}; it must be 1 to 65535.`);
  const wide = most > 255 ? 2 : 1;
  const start = at + 1;
  if (bytes.length < start + width * height * wide)
    throw new FileTrouble(
      `The picture breaks off after ${Math.max(0, bytes.length - start)} of ${width * height * wide} bytes; send it again.`,
    );
  const values = new Float32Array(width * height);
  for (let i = 0; i < values.length; i++)
    values[i] = (wide === 2 ? bytes[start + 2 * i] * 256 + bytes[start + 2 * i + 1] : bytes[start + i]) / most;
  return { width, height, values };
}

/** Writes brightness 0…1 as an 8-bit portable graymap. */
export function writePgm(width: number, height: number, values: ArrayLike<number>): Uint8Array {
  const head = strToU8(`P5\n${width} ${height}\n255\n`);
  const out = new Uint8Array(head.length + width * height);
  out.set(head);
  for (let i = 0; i < width * height; i++) out[head.length + i] = Math.round(255 * Math.max(0, Math.min(1, values[i])));
  return out;
}
