import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { buildPermutationTable, createNoise3D } from 'simplex-noise';
import { cellFinder, featurePoints } from './feature-points';
import { gradientField, gradientTable } from './gradients';
import { nearestDistance } from './kinds/cellular';
import { noiseKind, noiseKinds } from './kinds/index';
import { noiseField, type NoiseSettings } from './noise';
import { latticeValues } from './lattice-values';
import { permutation } from './permutation';
import { simplexField } from './simplex';

const still = { frame: 0, frames: 100 };
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
  seed: 0,
  rate: 0,
};

/** Mean and variance over points spread evenly in the noise's period. */
function statistics(field: (x: number, y: number, z: number) => number, n = 60_000) {
  const random = randomSource(5);
  let sum = 0;
  let square = 0;
  for (let i = 0; i < n; i++) {
    const v = field(random() * 256, random() * 256, random() * 256);
    sum += v;
    square += v * v;
  }
  const mean = sum / n;
  return { mean, variance: square / n - mean * mean };
}

/**
 * Improved noise as published: K. Perlin, "Improving Noise", SIGGRAPH 2002, reference program,
 * written out here in its own structure (fade, lerp, grad by hash bits) to be independent of ours.
 */
function referenceNoise(x: number, y: number, z: number): number {
  const p = permutation(0);
  const fade = (t: number) => t ** 3 * (t * (t * 6 - 15) + 10);
  const lerp = (t: number, a: number, b: number) => a + t * (b - a);
  const grad = (hash: number, gx: number, gy: number, gz: number) => {
    const h = hash & 15;
    const u = h < 8 ? gx : gy;
    const v = h < 4 ? gy : h === 12 || h === 14 ? gx : gz;
    return ((h & 1) === 0 ? u : -u) + ((h & 2) === 0 ? v : -v);
  };
  const [X, Y, Z] = [x, y, z].map((c) => Math.floor(c) & 255);
  [x, y, z] = [x, y, z].map((c) => c - Math.floor(c));
  const [u, v, w] = [x, y, z].map(fade);
  const [A, B] = [p[X] + Y, p[X + 1] + Y];
  const [AA, AB, BA, BB] = [p[A] + Z, p[A + 1] + Z, p[B] + Z, p[B + 1] + Z];
  return lerp(
    w,
    lerp(
      v,
      lerp(u, grad(p[AA], x, y, z), grad(p[BA], x - 1, y, z)),
      lerp(u, grad(p[AB], x, y - 1, z), grad(p[BB], x - 1, y - 1, z)),
    ),
    lerp(
      v,
      lerp(u, grad(p[AA + 1], x, y, z - 1), grad(p[BA + 1], x - 1, y, z - 1)),
      lerp(u, grad(p[AB + 1], x, y - 1, z - 1), grad(p[BB + 1], x - 1, y - 1, z - 1)),
    ),
  );
}

describe('gradient noise standing still', () => {
  const field = gradientField(0, 0, still);
  it('gives the value of the published program at (3.14, 42, 7)', () => {
    // The value widely used to check ports of the reference program, from memory.
    expect(field(3.14, 42, 7)).toBeCloseTo(0.13691995878400012, 15);
  });
  it('agrees with the published program everywhere', () => {
    const random = randomSource(1);
    for (let i = 0; i < 5000; i++) {
      const [x, y, z] = [random() * 600 - 300, random() * 600 - 300, random() * 600 - 300];
      expect(field(x, y, z)).toBeCloseTo(referenceNoise(x, y, z), 12);
    }
  });
  it('is 0 at lattice points and has period 256', () => {
    expect(Math.abs(field(3, -4, 17))).toBe(0);
    expect(field(0.3 + 256, 0.4 - 256, 0.5)).toBeCloseTo(field(0.3, 0.4, 0.5), 12);
  });
});

describe('moving gradients', () => {
  it('keep their length √2 at every moment', () => {
    for (const frame of [0, 13, 50, 99.5]) {
      const g = gradientTable(7, 2.3, { frame, frames: 100 });
      for (let i = 0; i < 256; i++)
        expect(Math.hypot(g[i * 3], g[i * 3 + 1], g[i * 3 + 2])).toBeCloseTo(Math.SQRT2, 12);
    }
  });
  it('move by more at a higher rate', () => {
    const moved = (rate: number) => {
      const [a, b] = [0, 1].map((frame) => gradientTable(1, rate, { frame, frames: 100 }));
      return Math.sqrt(a.reduce((s, x, i) => s + (x - b[i]) ** 2, 0));
    };
    expect(moved(2) / moved(1)).toBeCloseTo(2, 0);
    expect(moved(0)).toBe(0);
  });
});

describe('cellular noise', () => {
  it('is the distance to the nearest feature point, found by looking through all cells round', () => {
    // F1 as S. Worley defines it: the points are found again as the only places where it is least.
    const field = noiseKind('cellular').field(3, 0, still);
    const lowest = -1 * 0.5255 * 1.5;
    const random = randomSource(2);
    const slopes: number[] = [];
    for (let i = 0; i < 400; i++) {
      const [x, y, z] = [random() * 20, random() * 20, random() * 20];
      const h = 1e-4;
      const g = [
        field(x + h, y, z) - field(x - h, y, z),
        field(x, y + h, z) - field(x, y - h, z),
        field(x, y, z + h) - field(x, y, z - h),
      ].map((d) => d / (2 * h * 1.5));
      // The gradient of a distance has length 1 except where the nearest point changes.
      slopes.push(Math.hypot(...g));
      const d = (field(x, y, z) - lowest) / 1.5;
      // Walking the distance against the gradient arrives at the feature point.
      const arrived = (field(x - d * g[0], y - d * g[1], z - d * g[2]) - lowest) / 1.5;
      if (Math.abs(slopes.at(-1)! - 1) < 1e-6) expect(arrived).toBeLessThan(1e-4);
    }
    expect(slopes.filter((s) => Math.abs(s - 1) < 1e-3).length).toBeGreaterThan(380);
  });
});

describe('cells', () => {
  it('first and second distances are those of brute force over all feature points, by every measure', () => {
    const measures = {
      euclidean: (d: number[]) => Math.hypot(...d),
      manhattan: (d: number[]) => d.reduce((s, x) => s + Math.abs(x), 0),
      chebyshev: (d: number[]) => Math.max(...d.map(Math.abs)),
    };
    for (const metric of ['euclidean', 'manhattan', 'chebyshev'] as const)
      for (const jitter of [1, 0.4]) {
        const options = { mask: 255, metric, jitter };
        const clock = { frame: 7, frames: 30 };
        const [p, q] = [permutation(5), featurePoints(5, 1.2, clock, jitter)];
        const find = cellFinder(5, 1.2, clock, options);
        const random = randomSource(77);
        for (let n = 0; n < 120; n++) {
          const at = [random() * 30 - 15, random() * 30, random() * 300];
          const base = at.map(Math.floor);
          const all: number[] = [];
          for (let a = -4; a <= 4; a++)
            for (let b = -4; b <= 4; b++)
              for (let c = -4; c <= 4; c++) {
                const cell = [base[0] + a, base[1] + b, base[2] + c];
                const i = 3 * p[p[p[cell[0] & 255] + (cell[1] & 255)] + (cell[2] & 255)];
                all.push(measures[metric]([0, 1, 2].map((k) => cell[k] + q[i + k] - at[k])));
              }
          all.sort((x, y) => x - y);
          const got = find(at[0], at[1], at[2]);
          expect(got.first).toBeCloseTo(all[0], 9);
          expect(got.second).toBeCloseTo(all[1], 9);
        }
      }
  });
  it('the quick Euclidean distance is the same', () => {
    const clock = { frame: 3, frames: 30 };
    const [quick, find] = [nearestDistance(2, 1, clock), cellFinder(2, 1, clock)];
    const random = randomSource(6);
    for (let n = 0; n < 500; n++) {
      const at = [random() * 90, random() * 90, random() * 90] as const;
      expect(quick(...at)).toBeCloseTo(find(...at).first, 12);
    }
  });
});

describe('simplex noise', () => {
  it('is that of an independent implementation (npm simplex-noise) on its own permutation and gradients', () => {
    const random = () => randomSource(21);
    const perm = buildPermutationTable(random());
    const table = Uint8Array.from(perm);
    // That library takes its gradients, the twelve edges of a cube, by the permuted number modulo 12.
    const edges = [
      [1, 1, 0],
      [-1, 1, 0],
      [1, -1, 0],
      [-1, -1, 0],
      [1, 0, 1],
      [-1, 0, 1],
      [1, 0, -1],
      [-1, 0, -1],
      [0, 1, 1],
      [0, -1, 1],
      [0, 1, -1],
      [0, -1, -1],
    ];
    const gradients = Float64Array.from({ length: 256 }, (_, n) => n).reduce(
      (g, n) => (g.set(edges[n % 12], n * 3), g),
      new Float64Array(768),
    );
    const ours = simplexField(table, gradients);
    const peer = createNoise3D(random());
    const at = randomSource(4);
    for (let n = 0; n < 500; n++) {
      const [x, y, z] = [at() * 40 - 20, at() * 40 - 20, at() * 40 - 20];
      expect(ours(x, y, z)).toBeCloseTo(peer(x, y, z), 9);
    }
  });
});

describe('value noise', () => {
  it('has the lattice values at the lattice and halfway their mean', () => {
    const values = latticeValues(9, 0, still);
    const field = noiseKind('value').field(9, 0, still);
    const p = permutation(9);
    const at = (x: number, y: number, z: number) => values[p[p[p[x & 255] + (y & 255)] + (z & 255)]];
    for (const [x, y, z] of [
      [3, 4, 5],
      [-7, 100, 255],
      [256, 0, -1],
    ]) {
      expect(field(x, y, z)).toBeCloseTo(at(x, y, z), 12);
      expect(field(x + 0.5, y, z)).toBeCloseTo((at(x, y, z) + at(x + 1, y, z)) / 2, 12);
    }
  });
});

describe('a travelling pattern', () => {
  const moving = (over: object, frame: number) =>
    noiseField({ ...plain, rate: 0, travel: [1, 0, -2], tile: 4, ...over }, { frame, frames: 60 });
  it.each(noiseKinds.filter((k) => k.tiles !== 0).map((k) => [k.kind, k.tiles ?? 1] as const))(
    'of %s closes exactly and is the pattern of a moment ago, further on',
    (kind, tiles) => {
      for (const octaves of [1, 3]) {
        const [start, end, quarter] = [0, 60, 15].map((f) => moving({ kind, octaves }, f));
        for (const [x, y, z] of [
          [0.3, 1.7, 2.2],
          [5.1, -3.3, 0.4],
        ]) {
          expect(end(x, y, z)).toBe(start(x, y, z));
          // A whole tile away it is the same, which is why it closes.
          expect(start(x + 4 * tiles, y, z)).toBeCloseTo(start(x, y, z), 9);
          expect(quarter(x + tiles, y, z - 2 * tiles)).toBeCloseTo(start(x, y, z), 9);
        }
      }
    },
  );
  it('turns and shifts as a whole', () => {
    const [base, moved] = [moving({}, 0), moving({ shift: [1, 2, 3], turn: [0, 0, 90] }, 0)];
    for (const [x, y, z] of [
      [0.3, 1.7, 2.2],
      [5.1, -3.3, 0.4],
    ])
      expect(moved(1 - y, 2 + x, 3 + z)).toBeCloseTo(base(x, y, z), 9);
  });
});

describe.each(noiseKinds.map((k) => [k.kind, k] as const))('%s noise over the loop', (_, kind) => {
  const points = Array.from({ length: 200 }, randomSource(9)).map((x) => [x * 40, x * 91 - 30, x * 17 + 3] as const);

  it('is the same at f = N as at f = 0, bit for bit, for any rate, length and seed', () => {
    for (const [rate, frames, seed] of [
      [1, 100, 0],
      [0.37, 97, 5],
      [8.5, 241, 12],
    ] as const) {
      const [a, b] = [0, frames].map((frame) => kind.field(seed, rate, { frame, frames }));
      for (const p of points) expect(Object.is(a(...p), b(...p))).toBe(true);
    }
  });
  it('really changes on the way', () => {
    const fields = [0, 25, 50, 75].map((frame) => kind.field(4, 1, { frame, frames: 100 }));
    for (let i = 1; i < 4; i++) {
      const rms = Math.sqrt(points.reduce((s, p) => s + (fields[i](...p) - fields[0](...p)) ** 2, 0) / points.length);
      expect(rms).toBeGreaterThan(0.15);
    }
  });
  it('keeps its variance over space within a few per cent at every phase, and its mean near 0', () => {
    const all = Array.from({ length: 10 }, (_, i) => statistics(kind.field(6, 1.3, { frame: i * 10, frames: 100 })));
    const variance = all.reduce((s, x) => s + x.variance, 0) / all.length;
    for (const s of all) {
      expect(Math.abs(s.variance / variance - 1)).toBeLessThan(0.05);
      expect(Math.abs(s.mean)).toBeLessThan(0.03);
    }
  });
  it('moves evenly: the step from frame to frame is as large at the seam as elsewhere', () => {
    const n = 40;
    const fields = Array.from({ length: n + 1 }, (_, f) => kind.field(2, 1, { frame: f, frames: n }));
    const steps = Array.from({ length: n }, (_, f) =>
      Math.sqrt(points.reduce((s, p) => s + (fields[f + 1](...p) - fields[f](...p)) ** 2, 0) / points.length),
    );
    const mean = steps.reduce((a, b) => a + b) / n;
    for (const s of steps) expect(Math.abs(s / mean - 1)).toBeLessThan(0.4);
    expect(steps[n - 1] / ((steps[n - 2] + steps[0]) / 2)).toBeCloseTo(1, 0);
  });
  it('has other patterns for other seeds', () => {
    const [a, b] = [1, 2].map((seed) => kind.field(seed, 0, still));
    expect(points.some((p) => Math.abs(a(...p) - b(...p)) > 0.1)).toBe(true);
  });
});

describe('noise settings', () => {
  const at = (over: Partial<NoiseSettings>) => noiseField({ ...plain, ...over }, still)(0.31, 0.62, 0.17);
  it('scale and stretch are sizes of features', () => {
    const base = noiseField(plain, still);
    expect(noiseField({ ...plain, scale: 2 }, still)(0.6, 1.2, 0.4)).toBeCloseTo(base(0.3, 0.6, 0.2), 12);
    expect(noiseField({ ...plain, stretch: [3, 1, 1] }, still)(0.9, 0.6, 0.2)).toBeCloseTo(base(0.3, 0.6, 0.2), 12);
  });
  it('absolute, invert, contrast, brightness and clip act in this order', () => {
    const v = at({});
    expect(at({ invert: true })).toBe(-v);
    expect(at({ absolute: true })).toBe(Math.abs(v));
    expect(at({ absolute: true, invert: true, contrast: 3, brightness: 0.2 })).toBeCloseTo(-Math.abs(v) * 3 + 0.2, 12);
    expect(at({ contrast: 100, low: -0.5, high: 0.5 })).toBe(Math.sign(v) * 0.5);
  });
  it('adds octaves of half the size and half the strength (fractional Brownian sum, Ebert et al., ch. 2)', () => {
    const detail = (octaves: number) => {
      // Mean square of second differences over a small step: what only fine features have.
      const f = noiseField({ ...plain, octaves }, still);
      let s = 0;
      let power = 0;
      for (let i = 0; i < 4000; i++) {
        const x = i * 0.371;
        s += (f(x + 0.05, 0.4, 0.2) - 2 * f(x, 0.4, 0.2) + f(x - 0.05, 0.4, 0.2)) ** 2;
        power += f(x, 0.4, 0.2) ** 2;
      }
      return s / power;
    };
    expect(detail(2)).toBeGreaterThan(2 * detail(1));
    expect(detail(4)).toBeGreaterThan(2 * detail(2));
    expect(noiseField({ ...plain, octaves: 1 }, still)(0.31, 0.62, 0.17)).toBe(
      gradientField(0, 0, still)(0.31, 0.62, 0.17),
    );
  });
  it('names an unknown kind', () => expect(() => noiseKind('fluff')).toThrow('no noise called “fluff”'));
});

describe('permutation', () => {
  it('is a permutation of 0…255 written twice, for every seed', () => {
    for (const seed of [0, 1, 500]) {
      const p = permutation(seed);
      expect([...p.subarray(0, 256)].sort((a, b) => a - b)).toEqual(Array.from({ length: 256 }, (_, i) => i));
      expect(p.subarray(256)).toEqual(p.subarray(0, 256));
    }
  });
});
