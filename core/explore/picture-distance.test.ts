import { differenceEuclidean } from 'culori';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { loopDistance, pictureDistance, signatureOf } from './picture-distance';

const [W, H] = [24, 36];
const picture = (colour: (x: number, y: number) => readonly number[]) => {
  const rgba = new Uint8ClampedArray(4 * W * H);
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) rgba.set([...colour(x, y), 255], 4 * (y * W + x));
  return signatureOf(rgba, W, H);
};
const plain = (r: number, g: number, b: number) => picture(() => [r, g, b]);

describe('the distance of pictures', () => {
  it('of plain ones is that of their colours, as an independent library has it (culori)', () => {
    const random = randomSource(3);
    const differ = differenceEuclidean('oklab');
    const byte = () => Math.floor(256 * random());
    for (let n = 0; n < 50; n++) {
      const [a, b] = [
        [byte(), byte(), byte()],
        [byte(), byte(), byte()],
      ];
      const rgb = ([r, g, b]: number[]) => ({ mode: 'rgb' as const, r: r / 255, g: g / 255, b: b / 255 });
      const [p, q] = [a, b].map(([r, g, b]) => plain(r, g, b));
      expect(pictureDistance(p, q)).toBeCloseTo(100 * differ(rgb(a), rgb(b)), 2);
    }
    expect(pictureDistance(plain(0, 0, 0), plain(255, 255, 255))).toBeCloseTo(100, 2);
  });
  it('is nothing to itself, the same both ways, and no longer than a way round', () => {
    const random = randomSource(9);
    const any = () => picture(() => [255 * random(), 255 * random(), 255 * random()]);
    for (let n = 0; n < 10; n++) {
      const [a, b, c] = [any(), any(), any()];
      expect(pictureDistance(a, a)).toBe(0);
      expect(pictureDistance(a, b)).toBeCloseTo(pictureDistance(b, a), 10);
      expect(pictureDistance(a, c)).toBeLessThanOrEqual(pictureDistance(a, b) + pictureDistance(b, c) + 1e-9);
    }
  });
  it('goes by how much of the picture differs, and sees where', () => {
    const half = picture((x) => (x < W / 2 ? [0, 0, 0] : [255, 255, 255]));
    const other = picture((x) => (x < W / 2 ? [255, 255, 255] : [0, 0, 0]));
    expect(pictureDistance(plain(0, 0, 0), half)).toBeCloseTo(50, 2);
    expect(pictureDistance(half, other)).toBeCloseTo(100, 2);
    expect(loopDistance([half, half], [half, other])).toBeCloseTo(50, 2);
  });
});
