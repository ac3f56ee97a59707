import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { starts } from '@maypole/core/starts/index';
import { settledDocument } from '@maypole/core/starts/recipe-mark';
import { START_STRIP } from '@maypole/core/starts/strip';
import sharp from 'sharp';
import { expect, it } from 'vitest';

const folder = path.join(import.meta.dirname, '../web/public/starts');

it.each(starts)('$title has its pictures', async ({ id }) => {
  const file = path.join(folder, `${id}.webp`);
  expect(existsSync(file), 'run `npm run starts`').toBe(true);
  const { width, height } = await sharp(file).metadata();
  expect([width, height]).toEqual([START_STRIP.side * START_STRIP.frames, START_STRIP.side]);
  // The first frame and the last are not far apart; nor is any of them one plain colour.
  const { data } = await sharp(file).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (frame: number, x: number, y: number) => data[(y * width! + frame * START_STRIP.side + x) * 3];
  const seen = new Set<number>();
  for (let y = 0; y < START_STRIP.side; y += 4) for (let x = 0; x < START_STRIP.side; x += 4) seen.add(at(5, x, y));
  expect(seen.size).toBeGreaterThan(12);
});

it('the pictures are of the recipes as they are now', () => {
  const drawn = JSON.parse(readFileSync(path.join(folder, 'drawn.json'), 'utf8')) as Record<string, string>;
  expect(Object.keys(drawn).sort()).toEqual(starts.map((s) => s.id).sort());
  for (const start of starts)
    expect(drawn[start.id], `${start.title}: run \`npm run starts\``).toBe(
      createHash('sha256').update(settledDocument(start)).digest('hex'),
    );
});
