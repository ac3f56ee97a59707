import { describe, expect, it } from 'vitest';
import FFT from 'fft.js';
import { defaultsOf } from '../declare/params';
import { randomSource } from '../maths/random';
import { noiseKinds } from './kinds/index';
import { noiseField, type NoiseSettings } from './noise';
import { noiseFrom, noiseParams } from './noise-params';

const clock = { frame: 0, frames: 100 };
const plain: NoiseSettings = {
  kind: 'gradient',
  scale: 1,
  stretch: [1, 1, 1],
  octaves: 1,
  contrast: 1,
  brightness: 0,
  low: -10,
  high: 10,
  absolute: false,
  invert: false,
  seed: 3,
  rate: 0,
};
const random = randomSource(55);
const places = Array.from({ length: 200 }, () => [random() * 20, random() * 20, random() * 20] as const);

/** Share of the energy along a line at each frequency, in features per metre. */
function spectrum(settings: Partial<NoiseSettings>): (low: number, high: number) => number {
  const [size, length] = [2048, 64];
  const energy = new Float64Array(size / 2);
  for (let line = 0; line < 24; line++) {
    const field = noiseField({ ...plain, ...settings, seed: line + 1 }, clock);
    const fft = new FFT(size);
    const out = fft.createComplexArray();
    fft.realTransform(
      out,
      Array.from({ length: size }, (_, i) => field((i * length) / size, 0.37, line * 1.71 + 0.2)),
    );
    for (let k = 1; k < size / 2; k++) energy[k] += out[2 * k] ** 2 + out[2 * k + 1] ** 2;
  }
  const total = energy.reduce((a, b) => a + b, 0);
  return (low, high) => energy.reduce((s, e, k) => (k / length >= low && k / length < high ? s + e : s), 0) / total;
}

describe('octaves', () => {
  it('one octave of gradient noise is a band: nearly nothing above two features a metre (K. Perlin 1985)', () => {
    const share = spectrum({});
    expect(share(0, 2)).toBeGreaterThan(0.93);
    expect(share(4, 16)).toBeLessThan(0.01);
  });
  it('each octave adds energy where its features are, less of it with a smaller gain', () => {
    const fine = (gain: number) => spectrum({ octaves: 4, gain })(3, 16);
    expect(fine(0.9)).toBeGreaterThan(2 * fine(0.5));
    expect(fine(0.5)).toBeGreaterThan(2 * fine(0.25));
    expect(fine(0)).toBeLessThan(0.03);
  });
  it('a larger lacunarity puts the next octave farther away', () => {
    const share = (lacunarity: number) => spectrum({ octaves: 2, gain: 1, lacunarity })(5, 12);
    expect(share(6)).toBeGreaterThan(5 * share(2));
  });
  it('features scale with the size asked for', () => {
    expect(spectrum({ scale: 4 })(0, 0.5)).toBeGreaterThan(0.93);
    // A quarter of the size is four times the frequency, all along.
    const [fine, usual] = [spectrum({ scale: 0.25 }), spectrum({})];
    for (const f of [0.25, 0.5, 1]) expect(fine(0, 4 * f) / usual(0, f)).toBeCloseTo(1, 0);
  });
});

describe('the settings a step asks for', () => {
  const defaults = defaultsOf(noiseParams) as unknown as Parameters<typeof noiseFrom>[0];
  it('give the plain noise as they stand', () => {
    const [asked, direct] = [
      noiseFrom({ ...defaults, rate: 0 }, clock),
      noiseField({ ...plain, seed: 0, scale: 0.8, low: -1, high: 1 }, clock),
    ];
    for (const p of places) expect(asked(...p)).toBe(direct(...p));
  });
  it.each(noiseKinds.map((k) => k.kind))(
    '%s stays between the clips and is finite everywhere, at and beside lattice points',
    (noise) => {
      const field = noiseFrom(
        { ...defaults, noise: noise as 'gradient', low: -0.5, high: 0.4, octaves: 3, contrast: 3 },
        clock,
      );
      for (const [x, y, z] of [...places, [0, 0, 0], [1, 2, 3], [-4, 0, 256], [1e5, -1e5, 0.5]] as const) {
        const v = field(x, y, z);
        expect(v).toBeGreaterThanOrEqual(-0.5);
        expect(v).toBeLessThanOrEqual(0.4);
      }
    },
  );
  it('cells by other measures, and with less jitter, are other patterns of the same evenness', () => {
    const spread = (over: object) => {
      const field = noiseFrom({ ...defaults, noise: 'cellular-edges' as 'gradient', rate: 0, ...over }, clock);
      const values = places.map((p) => field(...p));
      const mean = values.reduce((a, b) => a + b) / values.length;
      return { mean, values };
    };
    const [round, square, still] = [spread({}), spread({ metric: 'chebyshev' }), spread({ jitter: 0 })];
    expect(Math.abs(round.mean)).toBeLessThan(0.12);
    expect(Math.abs(square.mean)).toBeLessThan(0.12);
    expect(round.values.some((v, i) => Math.abs(v - square.values[i]) > 0.2)).toBe(true);
    // Without jitter the points are a square lattice: in the middle of a cell's face two are equally near.
    const field = noiseFrom(
      { ...defaults, noise: 'cellular-edges' as 'gradient', rate: 0, jitter: 0, scale: 1, low: -5, high: 5 },
      clock,
    );
    expect(field(3, 4.5, 5.5)).toBeCloseTo(field(7, 1.5, 2.5), 9);
    expect(still.values.every(Number.isFinite)).toBe(true);
  });
  it('a turned and shifted pattern has the same values elsewhere', () => {
    const base = noiseFrom({ ...defaults, rate: 0 }, clock);
    const moved = noiseFrom({ ...defaults, rate: 0, shift: [0.4, -1, 2], turn: [0, 90, 0] }, clock);
    // A turn by 90° about y takes x to −z and z to x.
    for (const [x, y, z] of places) expect(moved(z + 0.4, y - 1, -x + 2)).toBeCloseTo(base(x, y, z), 9);
  });
});
