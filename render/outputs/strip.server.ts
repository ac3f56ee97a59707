import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { taggedSrgb } from '../files/png';
import type { Exporter } from './exporter';
import { sharpOf } from './still-picture';

export const strip: Exporter = async (making) => {
  const { frames, columns, width } = making.values as { frames: number; columns: number; width: number };
  const height = Math.round((width * making.size.height) / making.size.width);
  const count = Math.min(frames, making.frames.length);
  const across = Math.min(columns, count);
  const all = { width: across * width, height: Math.ceil(count / across) * height };
  const sheet = Buffer.alloc(4 * all.width * all.height);
  for (let i = 0; i < count; i++) {
    making.signal?.throwIfAborted();
    const index = Math.floor((i * making.frames.length) / count);
    const small = await (await sharpOf(making.sheet(index))).resize(width, height, { fit: 'fill' }).raw().toBuffer();
    const [x, y] = [(i % across) * width, Math.floor(i / across) * height];
    for (let row = 0; row < height; row++)
      small.copy(sheet, 4 * ((y + row) * all.width + x), 4 * row * width, 4 * (row + 1) * width);
    making.onShare?.((i + 1) / count);
  }
  const name = `${making.base}.png`;
  const png = await sharp(sheet, { raw: { ...all, channels: 4 } })
    .png()
    .toBuffer();
  await writeFile(path.join(making.folder, name), taggedSrgb(png));
  return [name];
};
