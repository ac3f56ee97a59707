import { readFile, writeFile } from 'node:fs/promises';
import { writeImage } from '@maypole/core/assets/image';
import { encode } from 'fast-png';
import { eightBits, decodePng, taggedSrgb } from '../files/png';
import { eachFrame, type Exporter } from './exporter';

/** A frame image as a PNG of a bit depth; without alpha unless it is asked for. */
export function pngOf(file: Uint8Array, depth: '8' | '16', clear: boolean): Uint8Array {
  if (depth === '16' && clear) return taggedSrgb(file);
  const sheet = decodePng(file);
  const { width, height } = sheet;
  const data = depth === '16' ? sheet.data : eightBits(sheet);
  if (clear) return taggedSrgb(writeImage(data as Uint8Array, width, height));
  return taggedSrgb(
    encode({ width, height, data: opaque(data), channels: 3, depth: data instanceof Uint8Array ? 8 : 16 }),
  );
}

/** Red, green and blue of each pixel. */
function opaque<T extends Uint8Array | Uint16Array>(data: T): T {
  const out = data.slice(0, (3 * data.length) / 4) as T;
  for (let i = 0, o = 0; i < data.length; i += 4, o += 3) {
    out[o] = data[i];
    out[o + 1] = data[i + 1];
    out[o + 2] = data[i + 2];
  }
  return out;
}

export const png: Exporter = (making) =>
  eachFrame(making, async (index, to) => {
    const { depth, clear } = making.values as { depth: '8' | '16'; clear: boolean };
    await writeFile(to, pngOf(await readFile(making.sheet(index)), depth, clear));
  });
