import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { FEATURES, SUMS } from '../trace/paths/tile-result';
import { Denoiser, emptyFeatures, putFeatures, type DenoiserFeatures } from './denoise';
import { emptyLight, putTile, wholeLight, type LightPicture } from './light';
import { sampleColour } from './sample-map';

const [W, H] = [64, 48];
/** Numbers of a pixel's guides. */
const GUIDES = 8;

/** Two walls side by side, each as bright as it is, one of them striped in its colour, with grain of a known spread. */
function walls(spread: number, seed: number): { truth: LightPicture; noisy: LightPicture; guides: DenoiserFeatures } {
  const random = randomSource(seed);
  const [truth, noisy, guides] = [emptyLight(W, H), emptyLight(W, H), emptyFeatures(W, H, 1)];
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      const left = x < W / 2;
      const colour = !left && x % 4 < 2 ? 0.2 : 0.8;
      const light = colour * (left ? 0.3 : 1);
      const grain = spread * light * (random() + random() + random() - 1.5) * 2;
      truth.values.set([light, light, light, 1], 4 * i);
      noisy.values.set([light + grain, light + grain, light + grain, 1], 4 * i);
      // Three even throws have a variance of ¼; twice as far apart, of 1.
      guides.variance[i] = (spread * light) ** 2;
      guides.features.set([colour, colour, colour, left ? 1 : 0, 0, left ? 0 : 1, 5, 1], GUIDES * i);
    }
  return { truth, noisy, guides };
}

const error = (a: LightPicture, b: LightPicture) =>
  Math.sqrt(a.values.reduce((sum, v, i) => sum + (v - b.values[i]) ** 2, 0) / (3 * W * H));

describe('taking grain out', () => {
  it('leaves less than a third of the error of even grain, of stripes of colour too', () => {
    const { truth, noisy, guides } = walls(0.3, 1);
    expect(error(new Denoiser().denoised(noisy, guides), truth)).toBeLessThan(error(noisy, truth) / 3);
  });
  it('lets nothing of one wall over to the other: they look other ways', () => {
    const { truth, guides } = walls(0.3, 2);
    const clean = new Denoiser().denoised(truth, guides);
    const at = 4 * (24 * W + W / 2);
    expect(clean.values[at - 4]).toBeCloseTo(truth.values[at - 4], 2);
    expect(clean.values[at]).toBeCloseTo(truth.values[at], 2);
  });
  it('leaves what has no grain, and how much is covered', () => {
    const { truth, guides } = walls(0, 3);
    const clean = new Denoiser().denoised(truth, guides);
    for (let i = 0; i < clean.values.length; i++) expect(clean.values[i]).toBeCloseTo(truth.values[i], 3);
  });
  it('is a function of the picture alone: the same a second time, and after another picture', () => {
    const { noisy, guides } = walls(0.3, 4);
    const denoiser = new Denoiser();
    const first = denoiser.denoised(noisy, guides).values;
    const other = walls(0.5, 5);
    denoiser.denoised(other.noisy, other.guides);
    expect(denoiser.denoised(noisy, guides).values).toEqual(first);
  });
  it('of light by where it comes from: all of it together is the picture, each like it is without grain', () => {
    const { truth, noisy, guides } = walls(0.3, 6);
    noisy.added.fill(0.01);
    truth.added.fill(0.01);
    const denoiser = new Denoiser();
    const clean = denoiser.denoised(noisy, guides);
    // A third comes from one lamp, two thirds from another; something that covers nothing from the first.
    const share = (light: LightPicture, of: number, veil: number) =>
      Float32Array.from({ length: 3 * W * H }, (_, i) => light.values[4 * Math.floor(i / 3) + (i % 3)] * of + veil);
    const parts = denoiser.parts([share(noisy, 1 / 3, 0.01), share(noisy, 2 / 3, 0)], noisy, guides, clean);
    const whole = wholeLight(clean);
    for (let i = 0; i < 3 * W * H; i++)
      expect(parts[0][i] + parts[1][i]).toBeCloseTo(whole[4 * Math.floor(i / 3) + (i % 3)], 5);
    const off = (part: Float32Array, exact: Float32Array) =>
      Math.sqrt(part.reduce((sum, x, i) => sum + (x - exact[i]) ** 2, 0) / part.length);
    for (const [k, of, veil] of [
      [0, 1 / 3, 0.01],
      [1, 2 / 3, 0],
    ]) {
      const exact = share(truth, of, veil);
      expect(off(parts[k], exact)).toBeLessThan(off(share(noisy, of, veil), exact) / 2);
    }
    // Light that does not go along leaves the picture as it was.
    expect(denoiser.denoised(noisy, guides).values).toEqual(clean.values);
  });
  it('cleans light that covers nothing, too', () => {
    const random = randomSource(9);
    const [light, guides] = [emptyLight(W, H), emptyFeatures(W, H, 1)];
    for (let i = 0; i < W * H; i++) {
      light.added.fill(0.5 + 0.4 * (random() - 0.5), 3 * i, 3 * i + 3);
      guides.variance[i] = 0.16 / 12;
    }
    const { added } = new Denoiser().denoised(light, guides);
    const off = (values: Float32Array) => Math.sqrt(values.reduce((sum, v) => sum + (v - 0.5) ** 2, 0) / values.length);
    expect(off(added)).toBeLessThan(off(light.added) / 2);
  });
  it('takes the grain out of a shadow on a floor: out of how much of what is behind it covers', () => {
    const random = randomSource(11);
    const [light, guides] = [emptyLight(W, H), emptyFeatures(W, H, 1)];
    const tile = { x: 0, y: 0, width: W, height: H };
    const sums = new Float64Array(SUMS * W * H);
    for (let i = 0; i < W * H; i++) {
      // A shadow on the left, met by chance in 16 samples of a pixel.
      const share = i % W < W / 2 ? 0.4 : 0;
      let met = 0;
      for (let n = 0; n < 16; n++) met += random() < share ? 1 : 0;
      sums[SUMS * i + 3] = met;
      sums[SUMS * i + 5] = 16;
    }
    putTile(light, tile, sums);
    putFeatures(guides, tile, { sums, features: new Float32Array(FEATURES * W * H) });
    const clean = new Denoiser().denoised(light, guides);
    const off = (l: LightPicture, from: number, to: number, share: number) => {
      let sum = 0;
      for (let i = 0; i < W * H; i++) if (i % W >= from && i % W < to) sum += (l.values[4 * i + 3] - share) ** 2;
      return Math.sqrt(sum / (H * (to - from)));
    };
    expect(off(light, 0, W / 2 - 4, 0.4)).toBeCloseTo(Math.sqrt(0.24 / 16), 1.7);
    expect(off(clean, 0, W / 2 - 4, 0.4)).toBeLessThan(off(light, 0, W / 2 - 4, 0.4) / 3);
    // Its border stays where it is.
    expect(off(clean, W / 2 + 4, W, 0)).toBeLessThan(0.01);
    expect(off(clean, W / 2, W / 2 + 2, 0)).toBeLessThan(0.1);
  });
  it('knows how uncertain a pixel is by how its samples differ', () => {
    const guides = emptyFeatures(2, 1, 1);
    // Brightness 1 and 3, in turn: a mean of 2, a variance of 2 among two samples, of half that of their mean.
    const sums = new Float64Array(2 * SUMS);
    sums.set([4, 4, 4, 2, 10, 2, 0, 0, 0]);
    sums.set([3, 3, 3, 1, 9, 1, 0, 0, 0], SUMS);
    const features = Float32Array.from([1, 1, 1, 0, 0, 2, 8, 2, 2, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
    putFeatures(guides, { x: 0, y: 0, width: 2, height: 1 }, { sums, features });
    expect(guides.variance[0]).toBeCloseTo(1, 6);
    expect([...guides.features.subarray(0, 8)]).toEqual([0.5, 0.5, 0.5, 0, 0, 1, 4, 1]);
    // Of a single sample it is its own size.
    expect(guides.variance[1]).toBeCloseTo(9, 6);
  });
});

describe('the map of samples', () => {
  it('goes from dark to bright, by the logarithm of their number', () => {
    const brightness = (n: number) =>
      sampleColour(n, 1024)
        .slice(0, 3)
        .reduce((a, b) => a + b, 0);
    for (let n = 1; n < 1024; n *= 2) expect(brightness(2 * n)).toBeGreaterThan(brightness(n));
    expect(sampleColour(0, 1024)).toEqual([0, 0, 0, 255]);
    expect(sampleColour(1024, 1024)).toEqual(sampleColour(5000, 1024));
    expect(sampleColour(1, 1)[3]).toBe(255);
  });
});
