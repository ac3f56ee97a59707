import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { BRIGHTEST, tidyLight, type LightPicture } from '../assets/light';
import { readRadiance, writeRadiance } from './radiance';

const text = (s: string) => new TextEncoder().encode(s);
const joined = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((p) => [...p]));

function picture(width: number, height: number, at: (x: number, y: number) => number[]): LightPicture {
  const values = new Float32Array(3 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) values.set(at(x, y), 3 * (y * width + x));
  return { width, height, values };
}

describe('pictures of light in the Radiance format', () => {
  it('come back as they were written, within a step of their mantissa, over twelve stops and with runs of every length', () => {
    const random = randomSource(5);
    for (const width of [1, 7, 8, 9, 127, 300]) {
      const light = picture(width, 4, (x, y) => {
        const run = y % 2 ? Math.floor(x / 5) : x;
        return [1, 0.5, 0.01].map((f) => f * 2 ** (((run * 7) % 12) - 6) * (y === 3 ? random() : 1));
      });
      const back = readRadiance(writeRadiance(light));
      expect([back.width, back.height]).toEqual([width, 4]);
      for (let i = 0; i < back.values.length; i += 3) {
        const most = Math.max(...light.values.subarray(i, i + 3));
        for (let k = 0; k < 3; k++)
          expect(Math.abs(back.values[i + k] - light.values[i + k])).toBeLessThanOrEqual(most / 128);
      }
    }
  });
  it('reads a pixel as the format says: (mantissa + ½) · 2^(exponent − 136), over the exposure', () => {
    // G. Ward, “Real Pixels”, Graphics Gems II: 128, 64, 0 with the exponent 129 is 1, ½ and nothing, about.
    const head = text('#?RADIANCE\n# made by hand\nEXPOSURE=2\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 1\n');
    const { values } = readRadiance(joined(head, Uint8Array.of(128, 64, 0, 129)));
    expect([...values]).toEqual([128.5 / 128 / 2, 64.5 / 128 / 2, 0]);
  });
  it('takes runs of whole pixels, and rows from the bottom or from the right', () => {
    const old = joined(
      text('#?RGBE\n\n+Y 2 -X 3\n'),
      Uint8Array.of(9, 9, 9, 128, 1, 1, 1, 2, 200, 0, 0, 128, 0, 0, 0, 0, 7, 7, 7, 128),
    );
    const { values } = readRadiance(old);
    // The file begins below right: three nines there, above them from the right 200, nothing and 7.
    const reds = [...values].filter((_, i) => i % 3 === 0).map((x) => (x === 0 ? 0 : x * 256 - 0.5));
    expect(reds).toEqual([7, 0, 200, 9, 9, 9]);
  });
  it('what is broken is refused in a sentence that says what it is', () => {
    const cases: [Uint8Array, string][] = [
      [text('P6\n1 1\n'), 'not a Radiance picture'],
      [
        text('#?RADIANCE\nFORMAT=32-bit_rle_xyze\n\n-Y 1 +X 1\n1234'),
        'in the format “32-bit_rle_xyze”; save it as RGBE',
      ],
      [text('#?RADIANCE\n\nY=3'), 'ends before its size is told'],
      [text('#?RADIANCE\n\nover there\n'), 'says its size as “over there”'],
      [text('#?RADIANCE\n\n-Y 99999 +X 99999\n'), 'more than can be taken in'],
      [text('#?RADIANCE\n\n-Y 0 +X 4\n'), 'is nothing'],
      [joined(text('#?RADIANCE\n\n-Y 2 +X 2\n'), Uint8Array.of(1, 2, 3, 128, 1)), 'breaks off in line 1 of 2'],
      [joined(text('#?RADIANCE\n\n-Y 1 +X 8\n'), Uint8Array.of(2, 2, 0, 8, 255, 3)), 'breaks off in line 1 of 1'],
    ];
    for (const [bytes, words] of cases) expect(() => readRadiance(bytes)).toThrow(words);
  });
  it('any change of its bytes is read or refused, and never anything else', () => {
    const good = writeRadiance(picture(40, 6, (x, y) => [x, y, 1]));
    const random = randomSource(9);
    let read = 0;
    for (let n = 0; n < 400; n++) {
      const bytes = good.slice(0, random() < 0.3 ? Math.floor(random() * good.length) : good.length);
      for (let k = 0; k < 3; k++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      try {
        expect(readRadiance(bytes).values.every((v) => v >= 0)).toBe(true);
        read++;
      } catch (error) {
        expect((error as Error).name).toBe('FileTrouble');
      }
    }
    expect(read).toBeGreaterThan(20);
  });
});

describe('a picture of light', () => {
  it('is made smaller by averages, so that as much light is in it', () => {
    const wide = picture(4096, 6, (x) => [x % 2 ? 3 : 1, 1, 0]);
    const { light, mended } = tidyLight(4096, 6, wide.values, 3);
    expect([light.width, light.height, mended]).toEqual([2048, 3, '']);
    for (let i = 0; i < light.values.length; i += 3) expect(light.values[i]).toBeCloseTo(2, 5);
  });
  it('has no values that are no light, and says what was mended', () => {
    const values = Float32Array.of(NaN, -1, 1e9, 1, Infinity, 0.5);
    const { light, mended } = tidyLight(2, 1, values, 3);
    expect([...light.values]).toEqual([0, 0, BRIGHTEST, 1, BRIGHTEST, 0.5]);
    expect(mended).toBe(
      'Of its 6 values 1 values that are no numbers were made 0, 1 below 0 were made 0, 2 beyond 65504 were made 65504',
    );
  });
});
