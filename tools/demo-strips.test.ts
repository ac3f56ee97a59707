import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { STRIP } from '../web/engine/draw/strip';
import { demoFiles, demoMark, demoStrip, STRIPS } from '../web/server/demo/files';

const folder = path.join(import.meta.dirname, '../demo');
const drawn = JSON.parse(readFileSync(path.join(STRIPS, 'drawn.json'), 'utf8')) as Record<string, string>;

describe('the pictures that demo pieces stand on a new shelf with', () => {
  it.each(demoFiles(folder))('%s has its strip, of the document as it is now', async (file) => {
    const strip = demoStrip(file);
    expect(existsSync(strip), 'run `npm run demo-strips`').toBe(true);
    expect(drawn[file], 'run `npm run demo-strips`').toBe(demoMark(readFileSync(path.join(folder, file), 'utf8')));
    const { width, height } = await sharp(strip).metadata();
    expect([width, height]).toEqual([STRIP.width * STRIP.frames, STRIP.height]);
    // Something is to be seen, and it moves.
    const at = (frame: number) =>
      sharp(strip)
        .extract({ left: frame * STRIP.width, top: 0, width: STRIP.width, height: STRIP.height })
        .removeAlpha()
        .raw()
        .toBuffer();
    const [one, other] = [await at(0), await at(5)];
    expect(new Set(one).size).toBeGreaterThan(12);
    let apart = 0;
    for (let i = 0; i < one.length; i++) apart += Math.abs(one[i] - other[i]);
    expect(apart / one.length).toBeGreaterThan(0.2);
  });
  it('there is none of a piece that is gone', () => {
    expect(Object.keys(drawn).sort()).toEqual(demoFiles(folder).sort());
  });
});
