import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { keepLight } from './keep-light';

const [W, H] = [200, 120];
const picture = (of: (x: number, y: number, k: number) => number) =>
  Float32Array.from({ length: 4 * W * H }, (_, i) => of((i >> 2) % W, Math.floor((i >> 2) / W), i % 4));
const mean = (p: Float32Array, k: number, from = 0, to = W) => {
  let sum = 0;
  for (let i = k; i < p.length; i += 4) if ((i >> 2) % W >= from && (i >> 2) % W < to) sum += p[i];
  return sum / ((to - from) * H);
};

describe('light that is kept where grain is taken out', () => {
  const random = randomSource(3);
  const truth = (x: number, y: number, k: number) => (k === 3 ? 1 : 0.2 + 0.1 * k + 0.3 * (x / W) * (y / H));
  /** Grain with bright samples by chance, as in glass. */
  const noisy = picture((x, y, k) => truth(x, y, k) * (k === 3 ? 1 : random() < 0.01 ? 4 : 0.97));
  it('is as much in all as there was, of each colour, whatever was lost', () => {
    const clean = keepLight(
      noisy,
      picture((x, y, k) => truth(x, y, k) * (k === 3 ? 1 : 0.95)),
      4,
      W,
      H,
    );
    for (const k of [0, 1, 2]) expect(mean(clean, k) / mean(noisy, k)).toBeCloseTo(1, 5);
    // How much is covered is no light.
    expect(mean(clean, 3)).toBe(1);
  });
  it('comes back where it was lost, and is left where none was', () => {
    const lost = (x: number) => (x < W / 2 ? 0.9 : 1);
    const clean = keepLight(
      picture(truth),
      picture((x, y, k) => truth(x, y, k) * (k === 3 ? 1 : lost(x))),
      4,
      W,
      H,
    );
    const off = (from: number, to: number) => mean(clean, 1, from, to) / mean(picture(truth), 1, from, to) - 1;
    expect(Math.abs(off(0, 70))).toBeLessThan(0.01);
    expect(Math.abs(off(130, W))).toBeLessThan(0.01);
  });
  it('is the picture itself where nothing was lost, or where there is none', () => {
    const same = keepLight(picture(truth), picture(truth), 4, W, H);
    expect(same.every((x, i) => Math.abs(x - truth((i >> 2) % W, Math.floor((i >> 2) / W), i % 4)) < 1e-6)).toBe(true);
    const dark = keepLight(new Float32Array(4 * W * H), new Float32Array(4 * W * H), 4, W, H);
    expect(dark.every((x) => x === 0)).toBe(true);
    // A picture of one pixel.
    expect(
      [...keepLight(Float32Array.of(1, 2, 3), Float32Array.of(0.9, 2, 3), 3, 1, 1)].map((x) => +x.toFixed(6)),
    ).toEqual([1, 2, 3]);
  });
});
