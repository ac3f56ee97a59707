import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { writeExr } from '@maypole/core/files/exr';
import { encode } from 'fast-png';
import { afterAll, describe, expect, it } from 'vitest';
import { frameImageFault } from './frame/check-frame-image';
import { FrameImageStore } from './frame/keep';

const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-sheets-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const kept = (name: string, bytes: Uint8Array) => {
  writeFileSync(path.join(folder, name), bytes);
  return path.join(folder, name);
};
const form = { width: 64, height: 48, light: 'true' } as const;
const png = (width: number, height: number, depth: 8 | 16, channels = 4) =>
  encode({
    width,
    height,
    channels,
    depth,
    data:
      depth === 16
        ? Uint16Array.from({ length: width * height * channels }, (_, i) => i * 37)
        : Uint8Array.from({ length: width * height * channels }, (_, i) => i * 37),
  });
const exr = (width: number, height: number, packed = true) =>
  writeExr(
    Float32Array.from({ length: 4 * width * height }, (_, i) => Math.sin(i / 50)),
    width,
    height,
    [],
    {
      precision: 'half',
      packed,
    },
  );

describe('a sheet that a worker brings', () => {
  it('is taken where it is whole and as it was asked for', async () => {
    expect(await frameImageFault(kept('a.png', png(64, 48, 16)), 'solid', form)).toBeUndefined();
    expect(await frameImageFault(kept('b.png', png(64, 48, 8)), 'clear', { ...form, light: 'quick' })).toBeUndefined();
    expect(await frameImageFault(kept('c.exr', exr(64, 48)), 'half', form)).toBeUndefined();
    expect(await frameImageFault(kept('d.exr', exr(64, 48, false)), 'half', form)).toBeUndefined();
  });
  it('of another size, depth or kind is told so', async () => {
    expect(await frameImageFault(kept('s.png', png(32, 24, 16)), 'solid', form)).toBe(
      'It is 32 × 24, and 64 × 48 was asked for.',
    );
    expect(await frameImageFault(kept('e.png', png(64, 48, 8)), 'solid', form)).toContain('8 bits a channel, and 16');
    expect(await frameImageFault(kept('s.exr', exr(32, 24)), 'half', form)).toContain('32 × 24');
    expect(await frameImageFault(kept('p.exr', png(64, 48, 16)), 'half', form)).toContain('no OpenEXR');
  });
  it('that is broken anywhere is told so', async () => {
    for (const [name, sheet, bytes] of [
      ['x.png', 'solid', png(64, 48, 16)],
      ['x.exr', 'half', exr(64, 48)],
    ] as const) {
      // A head with garbage behind it, cut at ten places, and zeros in the middle.
      const garbage = Uint8Array.from(bytes, (b, i) => (i < 60 ? b : (i * 2654435761) >>> 24));
      const holes = Uint8Array.from(bytes, (b, i) => (Math.abs(i - bytes.length / 2) < 200 ? 0 : b));
      for (const [which, broken] of [
        garbage,
        holes,
        ...Array.from({ length: 10 }, (_, i) => bytes.subarray(0, Math.floor((bytes.length * (i + 0.5)) / 10))),
      ].entries())
        expect(await frameImageFault(kept(name, broken), sheet, form), `${name}, ${which}`).toBeDefined();
    }
  });
});

describe('the folder of sheets', () => {
  it('is listed by what is ours: sheets, and what was to become one', async () => {
    const store = new FrameImageStore(path.join(folder, 'store'));
    const print = 'ab'.repeat(32);
    await store.put(print, 'solid', png(64, 48, 16));
    const file = store.file(print, 'solid');
    writeFileSync(`${file}.123-abc.part`, 'half of it');
    writeFileSync(path.join(path.dirname(file), 'notes.txt'), 'somebody else’s');
    writeFileSync(path.join(folder, 'store', 'readme.png'), 'somebody else’s');
    const found = [];
    for await (const files of store.listed()) found.push(...files);
    expect(found.map((f) => [path.basename(f.file), f.sheet]).sort()).toEqual([
      [`${print}.solid.png`, 'solid'],
      [`${print}.solid.png.123-abc.part`, undefined],
    ]);
    expect(readFileSync(file).length).toBeGreaterThan(100);
  });
});
