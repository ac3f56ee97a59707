import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { inEightBits } from '@maypole/core/develop/develop';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deliverOutput } from './deliver';
import { eightBits, decodePng, taggedSrgb } from './files/png';
import { orderOf, testLoop, type TestLoop } from './fixtures/loop';

let loop: TestLoop;
beforeAll(() => {
  loop = testLoop(4);
});
afterAll(() => rmSync(loop.folder, { recursive: true, force: true }));

const made = async (kind: string, values = {}, base = `still-${kind}`) => {
  const { files, report } = await deliverOutput({ ...orderOf(loop, kind, values), base });
  expect(report.sound, report.words).toBe(true);
  return files.map((f) => path.join(loop.folder, f.name));
};
/** Pixels as ffmpeg reads them, in a form of its. */
const pixels = (file: string, form: string) =>
  execFileSync('/usr/bin/ffmpeg', ['-v', 'error', '-i', file, '-f', 'rawvideo', '-pix_fmt', form, '-'], {
    maxBuffer: 1e9,
  });
const exif = (file: string) =>
  (JSON.parse(execFileSync('/usr/bin/exiftool', ['-j', file]).toString()) as Record<string, string | number>[])[0];
const oiio = (file: string) => execFileSync('/usr/bin/oiiotool', ['--info', '-v', file]).toString();
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]));
  return most;
};

describe('pictures of frames, as other programs read them', () => {
  it('PNG of 16 bits has every bit of the frame, and says it is sRGB', async () => {
    const files = await made('png', { depth: '16' }, 'deep');
    expect(files.map((f) => path.basename(f))).toEqual([
      'deep-0000.png',
      'deep-0001.png',
      'deep-0002.png',
      'deep-0003.png',
    ]);
    const found = pixels(files[2], 'rgba64le');
    const wanted = decodePng(readFileSync(loop.sheet('solid', 2))).data;
    expect(worst(new Uint16Array(found.buffer, found.byteOffset, found.length / 2), wanted)).toBe(0);
    expect(exif(files[0])).toMatchObject({
      ...{ BitDepth: 16, SRGBRendering: 'Perceptual', ImageWidth: 96, ColorType: 'RGB' },
    });
  });
  it('PNG of 8 bits is the picture as it is on the screen', async () => {
    const files = await made('png', {}, 'plain');
    const wanted = eightBits(decodePng(readFileSync(loop.sheet('solid', 1))));
    expect(worst(pixels(files[1], 'rgba'), wanted)).toBe(0);
    expect(exif(files[0])).toMatchObject({ BitDepth: 8, SRGBRendering: 'Perceptual', ColorType: 'RGB' });
  });
  it('PNG without backdrop is see-through where the frame is', async () => {
    const [file] = await made('png', { clear: true, depth: '16' }, 'clear');
    expect(exif(file)).toMatchObject({ ColorType: 'RGB with Alpha' });
    const found = pixels(file, 'rgba64le');
    const wanted = decodePng(readFileSync(loop.sheet('clear', 0))).data;
    expect(worst(new Uint16Array(found.buffer, found.byteOffset, found.length / 2), wanted)).toBe(0);
  });
  it.each([
    ['8', /uint8|unsigned int 8|8-bit|\buint8\b/],
    ['16', /uint16/],
  ])('TIFF of %s bits is read by OpenImageIO as such', async (depth, type) => {
    const [file] = await made('tiff', { depth }, `tiff-${depth}`);
    expect(oiio(file)).toMatch(type);
    expect(exif(file)).toMatchObject({ BitsPerSample: `${depth} ${depth} ${depth}`, ProfileDescription: 'sRGB' });
    const sheet = decodePng(readFileSync(loop.sheet('solid', 0)));
    if (depth === '16') {
      const found = pixels(file, 'rgba64le');
      expect(worst(new Uint16Array(found.buffer, found.byteOffset, found.length / 2), sheet.data)).toBeLessThanOrEqual(
        1,
      );
    } else expect(worst(pixels(file, 'rgba'), eightBits(sheet))).toBe(0);
  });
  it.each([
    ['jpeg', 'jpg', 'sRGB'],
    ['webp-pictures', 'webp', 'sRGB'],
    ['avif-pictures', 'avif', 'sRGB'],
  ])('%s says that it is sRGB, and is near the frame', async (kind, ending, profile) => {
    const [file] = await made(kind);
    expect(file.endsWith(`.${ending}`)).toBe(true);
    expect(exif(file)).toMatchObject({ ImageWidth: 96, ImageHeight: 64, ProfileDescription: profile });
    const wanted = eightBits(decodePng(readFileSync(loop.sheet('solid', 0))));
    const found = await sharp(file).ensureAlpha().raw().toBuffer();
    let sum = 0;
    for (let i = 0; i < wanted.length; i++) sum += Math.abs(found[i] - wanted[i]);
    expect(sum / wanted.length).toBeLessThan(2.5);
  });
  it('WebP without loss is the frame in every bit of 8', async () => {
    const [file] = await made('webp-pictures', { quality: 'lossless', clear: true }, 'exact');
    const found = await sharp(file).ensureAlpha().raw().toBuffer();
    expect(worst(found, eightBits(decodePng(readFileSync(loop.sheet('clear', 0)))))).toBe(0);
  });
  it('a poster is the frame at its place, a strip has as many as it should', async () => {
    const [poster] = await made('poster', { at: 60, depth: '16' });
    const found = pixels(poster, 'rgba64le');
    const wanted = decodePng(readFileSync(loop.sheet('solid', 2))).data;
    expect(worst(new Uint16Array(found.buffer, found.byteOffset, found.length / 2), wanted)).toBe(0);
    const [strip] = await made('strip', { frames: 4, columns: 3, width: 48 });
    expect(exif(strip)).toMatchObject({ ImageWidth: 3 * 48, ImageHeight: 2 * 32 });
  });
  it('a web page plays the loop for ever, of files beside it', async () => {
    const files = await made('page');
    const html = readFileSync(files[0], 'utf8');
    expect(html).toMatch(/<video [^>]*autoplay loop muted playsinline/);
    for (const name of files.slice(1)) expect(html).toContain(path.basename(name));
    expect(files.map((f) => path.extname(f))).toEqual(['.html', '.webm', '.mp4', '.jpg']);
  });
});

describe('from 16 bits to 8', () => {
  it('what 8 bits can tell stays as it is, and between two it is one or the other, as often as it is near', () => {
    const side = 64;
    const of = (value: number) => {
      const deep = new Uint16Array(4 * side * side).fill(value);
      return inEightBits(deep, side);
    };
    for (const c of [0, 1, 127, 254, 255]) expect(new Set(of(257 * c))).toEqual(new Set([c]));
    const half = of(Math.round(257 * 100.25)).filter((_, i) => i % 4 === 0);
    const mean = half.reduce((n, v) => n + v, 0) / half.length;
    expect(new Set(half)).toEqual(new Set([100, 101]));
    expect(mean).toBeGreaterThan(100.2);
    expect(mean).toBeLessThan(100.3);
  });
  it('the chunks that tell of colour are where the standard wants them: before the pixels', () => {
    const png = Buffer.from(taggedSrgb(readFileSync(loop.sheet('solid', 0))));
    const names = ['IHDR', 'sRGB', 'gAMA', 'IDAT', 'IEND'].map((n) => png.indexOf(n));
    expect(names).toEqual([...names].sort((a, b) => a - b));
    expect(names[0]).toBe(12);
  });
});
