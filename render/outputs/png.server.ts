import { readFile, writeFile } from 'node:fs/promises';
import { writeImage } from '@maypole/core/files/image';
import { eightBits, readSheet, taggedSrgb } from '../files/png';
import { eachFrame, type Maker } from './maker';

/** A sheet as a PNG of a depth. */
export function pngOf(file: Uint8Array, depth: '8' | '16'): Uint8Array {
  if (depth === '16') return taggedSrgb(file);
  const sheet = readSheet(file);
  return taggedSrgb(writeImage(eightBits(sheet), sheet.width, sheet.height));
}

export const png: Maker = (making) =>
  eachFrame(making, async (index, to) => {
    const { depth } = making.values as { depth: '8' | '16' };
    await writeFile(to, pngOf(await readFile(making.sheet(index)), depth));
  });
