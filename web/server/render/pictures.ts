import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { keptFrameImages } from './queue';
import { frameImageStore } from './room';

/**
 * A finished frame as a small picture (WebP), or whole (PNG) without a width. Only images of what is seen can be shown.
 */
export async function framePicture(
  db: Database,
  render: string,
  index: number,
  width: number | undefined,
): Promise<{ type: string; bytes: Uint8Array; tag: string }> {
  const { rows } = await db.execute<{ fingerprint: string; sheets: FrameImageName[]; state: string }>(sql`
    select p.fingerprint, r.sheets, p.state from render_parts p join renders r on r.id = p.render_id
    where p.render_id = ${render} and p.index = ${index}`);
  const [part] = rows;
  if (!part || part.state !== 'done') throw new AppError(404, 'This frame is not finished yet.');
  const kept = await keptFrameImages(db, part.fingerprint);
  const sheet = (['solid', 'clear'] as const).find((s) => kept?.[s]);
  if (!sheet) throw new AppError(404, 'This frame is kept as light alone, of which there is no picture to show.');
  const file = frameImageStore().file(part.fingerprint, sheet);
  if (!existsSync(file)) throw new AppError(404, 'The picture of this frame is lost; it is made again when files are.');
  if (width === undefined) return { type: 'image/png', bytes: await readFile(file), tag: part.fingerprint };
  // By a library that works outside this thread.
  const bytes = await sharp(file).resize({ width, withoutEnlargement: true }).webp({ quality: 80 }).toBuffer();
  return { type: 'image/webp', bytes, tag: part.fingerprint };
}
