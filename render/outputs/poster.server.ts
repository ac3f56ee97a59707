import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Exporter } from './exporter';
import { pngOf } from './png.server';

export const poster: Exporter = async (making) => {
  const { at, depth } = making.values as { at: number; depth: '8' | '16' };
  const index = Math.min(making.frames.length - 1, Math.floor((at / 100) * making.frames.length));
  const name = `${making.base}.png`;
  await writeFile(path.join(making.folder, name), pngOf(await readFile(making.sheet(index)), depth, false));
  return [name];
};
