import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { drawOptions, pieceIn, refusePlace } from './draw-options';

describe('what is asked for when a frame is drawn', () => {
  it('has a value for everything that is not said', () => {
    expect(drawOptions(['a.json', '--to', 'b.png'])).toEqual({
      file: 'a.json',
      to: 'b.png',
      frame: 0,
      samples: 64,
      bounces: { diffuse: 8, glossy: 8, transmission: 16, air: 64 },
      error: 0,
      minSamples: 16,
      denoise: false,
      passes: false,
      fireflyClamp: 20,
      grainMotion: 'moves',
      clear: false,
    });
    expect(
      drawOptions(['--to', 'b.exr', 'a.json', '--size', '320x200', '--limit', 'none', '--clear', '--frame', '-2.5']),
    ).toMatchObject({
      width: 320,
      height: 200,
      fireflyClamp: Infinity,
      clear: true,
      frame: -2.5,
    });
  });
  it.each([
    [[], 'Name one piece file'],
    [['a', 'b', '--to', 'x.png'], 'Name one piece file'],
    [['a', '--to', 'x.jpg'], 'Say where the picture goes'],
    [['a', '--to', '/no/such/folder/x.png'], 'There is no folder /no/such/folder'],
    [['a', '--to', 'x.png', '--samples', '0'], '--samples 0 should be a whole number from 1'],
    [['a', '--to', 'x.png', '--samples', '2.5'], '--samples 2.5 should be a whole number'],
    [['a', '--to', 'x.png', '--size', '99999x99999'], '--size 99999x99999 should be as 1080x1080'],
    [['a', '--to', 'x.png', '--bounces', '8,x'], '--bounces 8,x should be a whole number from 0 to 64, or up to four'],
    [['a', '--to', 'x.png', '--grain', 'dances'], '--grain dances should be moves or stands'],
    [['a', '--to', 'x.png', '--light', 'true'], 'There is no option --light'],
    [['a', '--to', 'x.png', '--passes'], '--passes go into layers, which only a .exr has'],
    [['a', '--to'], '--to needs a value'],
  ])('%j is refused in a sentence', (args, words) => {
    expect(() => drawOptions(args)).toThrow(words);
  });
  it('a file that is none, or no piece, is told by its name', async () => {
    await expect(pieceIn('none.json')).rejects.toThrow('none.json: there is no such file.');
    await expect(pieceIn(import.meta.filename)).rejects.toThrow(import.meta.filename);
  });
});

describe('where a picture goes', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-draw-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  it('is looked at before anything is drawn, and what is there stays', () => {
    expect(() => refusePlace(folder)).toThrow('is a folder; name the file in it');
    expect(() => refusePlace(path.join(folder, 'none', 'a.png'))).toThrow('There is no folder');
    const file = path.join(folder, 'a.png');
    refusePlace(file);
    expect(existsSync(file)).toBe(false);
    writeFileSync(file, 'before');
    refusePlace(file);
    expect(readFileSync(file, 'utf8')).toBe('before');
  });
});
