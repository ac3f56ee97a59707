/**
 * Draws the previews of starting points in true light: `npm run starts` draws those whose recipe has changed. Each is a
 * strip of frames side by side, which New loop plays.
 */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { developed } from '@maypole/core/develop/develop';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { starts } from '@maypole/core/starts/index';
import { START_STRIP } from '@maypole/core/starts/strip';
import { settledDocument } from '@maypole/core/starts/recipe-mark';
import { TraceCrew } from '@maypole/render/frame/trace-crew';
import { trueFrame } from '@maypole/render/frame/true-frame';
import sharp, { type OverlayOptions } from 'sharp';

const folder = path.join(import.meta.dirname, '../web/public/starts');
const list = path.join(folder, 'drawn.json');
const drawn: Record<string, string> = existsSync(list) ? JSON.parse(readFileSync(list, 'utf8')) : {};
const { side, frames } = START_STRIP;
/** Rendered larger and reduced: edges are smooth with few samples. */
const SCALE = 2;
const ORDER = { width: side * SCALE, height: side * SCALE, samples: 24, error: 0, denoise: true, passes: false };

const crew = new TraceCrew(os.availableParallelism());
for (const start of starts) {
  const mark = createHash('sha256').update(settledDocument(start)).digest('hex');
  const file = path.join(folder, `${start.id}.webp`);
  if (drawn[start.id] === mark && existsSync(file)) continue;
  const piece = start.make();
  const cache = new MeshCache();
  const parts: OverlayOptions[] = [];
  for (let i = 0; i < frames; i++) {
    const frame = (i * piece.loop.frames) / frames;
    const { clean, scene } = await trueFrame(crew, piece, frame, { ...ORDER, detail: 'draft' }, cache);
    const raw = { width: ORDER.width, height: ORDER.height, channels: 4 } as const;
    const picture = sharp(Buffer.from(developed(clean, { scene }).buffer), { raw })
      .resize(side, side)
      .removeAlpha();
    parts.push({ input: await picture.png().toBuffer(), left: i * side, top: 0 });
  }
  const blank = { width: side * frames, height: side, channels: 3, background: '#000' } as const;
  await sharp({ create: blank }).composite(parts).webp({ quality: 82, effort: 6 }).toFile(file);
  drawn[start.id] = mark;
  writeFileSync(list, `${JSON.stringify(drawn, null, 2)}\n`);
  console.log(`${start.title}: drawn.`);
}
await crew.close();
