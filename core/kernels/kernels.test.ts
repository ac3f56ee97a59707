import { describe, expect, it } from 'vitest';
import { CELLULAR_MEAN, CELLULAR_SPREAD } from '../noise/kinds/cellular';
import { EDGES_MEAN, EDGES_SPREAD } from '../noise/kinds/cellular-edges';
import { SECOND_MEAN, SECOND_SPREAD } from '../noise/kinds/cellular-second';
import { sampleNoise } from '../noise/sample';
import type { NoiseSettings } from '../noise/noise';
import { catmullClark } from '../shape/catmull-clark';
import { laplacianSmooth } from '../shape/laplacian';
import type { Mesh } from '../shape/mesh';
import { vertexNormals } from '../shape/normals';
import { stepKind } from '../steps/index';
import { defaultsOf } from '../declare/params';
import { randomSource } from '../maths/random';
import { kernels, withoutKernels } from './kernels';

const random = randomSource(5);
const points = Float32Array.from({ length: 3 * 20_000 }, () => (random() - 0.5) * 40);
const form = (kind: string, values: object = {}): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, null as never, {
    clock: { frame: 0, frames: 1 },
    detail: 'draft',
  });
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]));
  return most;
};
const settings = (over: Partial<NoiseSettings>): NoiseSettings => ({
  kind: 'gradient',
  scale: 0.7,
  stretch: [1, 1, 1],
  octaves: 1,
  contrast: 1,
  brightness: 0,
  low: -5,
  high: 5,
  absolute: false,
  invert: false,
  seed: 3,
  rate: 1,
  ...over,
});

describe('the compiled kernels', () => {
  it('are there, so that this suite tries them', () => expect(kernels()).not.toBeNull());

  it.each([
    ['gradient noise', {}],
    [
      'gradient noise of five octaves, turned, stretched, shifted and folded',
      {
        octaves: 5,
        stretch: [1, 2, 0.5],
        turn: [30, 40, 50],
        shift: [1, 2, 3],
        absolute: true,
        gain: 0.6,
        lacunarity: 2.3,
      },
    ],
    ['gradient noise that travels', { travel: [1, 0, -2], tile: 8, octaves: 3 }],
    ['cellular noise', { kind: 'cellular' }],
    [
      'cellular noise of two octaves with half the jitter, inverted',
      { kind: 'cellular', octaves: 2, jitter: 0.5, invert: true },
    ],
    ['second cells', { kind: 'cellular-second', octaves: 2 }],
    ['edges of cells, lattices of every size', { kind: 'cellular-edges', travel: [0, 1, 0], tile: 2, octaves: 8 }],
    ['cellular noise that travels', { kind: 'cellular', travel: [0, 3, 0], tile: 4 }],
  ] as [string, Partial<NoiseSettings>][])('%s is within 1e−5 of the reference', (_, over) => {
    const clock = { frame: 17, frames: 100 };
    const fast = sampleNoise(settings(over), clock, points);
    const plain = withoutKernels(() => sampleNoise(settings(over), clock, points));
    expect(fast).not.toEqual(plain);
    expect(farthest(fast, plain)).toBeLessThan(1e-5);
  });
  it('close bit for bit, at −N, N and 3N', () => {
    for (const kind of ['gradient', 'cellular', 'cellular-edges']) {
      const at = (frame: number) =>
        sampleNoise(settings({ kind, octaves: 3, travel: [1, 0, 0] }), { frame, frames: 48 }, points.subarray(0, 3000));
      const first = at(5);
      for (const loops of [-1, 1, 3]) expect(at(5 + 48 * loops)).toEqual(first);
    }
  });
  it('give subdivision, smoothing and normals within a float of the reference', () => {
    const shape = form('torus');
    const fine = catmullClark(shape, 2);
    expect(farthest(fine.positions, withoutKernels(() => catmullClark(shape, 2)).positions)).toBeLessThan(1e-6);
    for (const hold of [true, false]) {
      const open = form('plane');
      const rough = { ...open, positions: open.positions.map((x) => x + random() * 0.1) };
      expect(
        farthest(
          laplacianSmooth(rough, 7, 0.6, hold).positions,
          withoutKernels(() => laplacianSmooth(rough, 7, 0.6, hold)).positions,
        ),
      ).toBeLessThan(1e-6);
    }
    for (const kind of ['torus', 'platonic', 'geodesic', 'medal']) {
      const m = form(kind, kind === 'platonic' ? { parts: 12 } : {});
      expect(
        farthest(
          vertexNormals(m.connectivity, m.positions),
          withoutKernels(() => vertexNormals(m.connectivity, m.positions)),
        ),
      ).toBeLessThan(2e-5);
    }
  });
  it('keep their tables apart when more of them are used than there is room for', () => {
    const many = Array.from({ length: 24 }, (_, i) => form('plane', { columns: 300 + i, rows: 300 }));
    const expected = many.map((m) => withoutKernels(() => laplacianSmooth(m, 1, 0.5, false)).positions);
    for (let round = 0; round < 2; round++)
      many.forEach((m, i) =>
        expect(farthest(laplacianSmooth(m, 1, 0.5, false).positions, expected[i])).toBeLessThan(1e-6),
      );
  });

  it.each(['gradient', 'cellular', 'cellular-second', 'cellular-edges'])(
    '%s: a value depends on its place alone, wherever it lies in a batch',
    (kind) => {
      const clock = { frame: 3, frames: 20 };
      const whole = sampleNoise(settings({ kind, octaves: 2 }), clock, points);
      for (const [from, count] of [
        [0, 64],
        [63, 65],
        [1000, 4097],
        [19_900, 100],
      ]) {
        expect(
          sampleNoise(settings({ kind, octaves: 2 }), clock, points.subarray(3 * from, 3 * (from + count))),
        ).toEqual(whole.subarray(from, from + count));
      }
    },
  );
  it.each(['gradient', 'cellular', 'cellular-second'])(
    '%s stays with the reference far from the origin, on borders of the lattice, and has no jump there',
    (kind) => {
      const clock = { frame: 3, frames: 20 };
      const s = settings({ kind, scale: 1 });
      // Whole numbers and a hair to either side of them, up to the farthest place that a float tells from its neighbour by a thousandth.
      const places = Float32Array.from(
        { length: 3 * 900 },
        (_, i) => Math.round((random() - 0.5) * (i % 2 ? 20 : 8000)) + [0, 1e-3, -1e-3][Math.floor(i / 3) % 3],
      );
      const fast = sampleNoise(s, clock, places);
      expect(
        farthest(
          fast,
          withoutKernels(() => sampleNoise(s, clock, places)),
        ),
      ).toBeLessThan(1e-5);
      const border = Float32Array.from({ length: 3 * 100 }, (_, i) =>
        i % 3 === 0 ? 7 + (Math.floor(i / 3) - 50) * 2e-5 : 0.37,
      );
      const across = sampleNoise(s, clock, border);
      for (let i = 1; i < 100; i++) expect(Math.abs(across[i] - across[i - 1])).toBeLessThan(2e-4);
    },
  );
  it('distances to cells keep their order and their bounds: F1 ≤ F2 ≤ √3, and their difference is the third kind', () => {
    const clock = { frame: 11, frames: 20 };
    const distance = (kind: string, mean: number, spread: number) =>
      sampleNoise(settings({ kind, scale: 1, low: -50, high: 50 }), clock, points).map((v) => v / spread + mean);
    const [first, second, between] = [
      distance('cellular', CELLULAR_MEAN, CELLULAR_SPREAD),
      distance('cellular-second', SECOND_MEAN.euclidean, SECOND_SPREAD.euclidean),
      distance('cellular-edges', EDGES_MEAN.euclidean, EDGES_SPREAD.euclidean),
    ];
    let far = 0;
    for (let i = 0; i < first.length; i++) {
      if (!(
        first[i] >= -1e-6 &&
        first[i] <= second[i] + 1e-6 &&
        second[i] <= Math.sqrt(3) + 1e-6 &&
        Math.abs(second[i] - first[i] - between[i]) < 1e-5
      ))
        throw new Error(`at point ${i}: F1 ${first[i]}, F2 ${second[i]}, F2 − F1 ${between[i]}`);
      if (second[i] > 1) far++;
    }
    // Some lie farther than a cell, where more than the 27 cells around are looked through.
    expect(far).toBeGreaterThan(300);
  });
});
