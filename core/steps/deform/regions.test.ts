import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { form, step } from '../../fixtures/forms';
import { curlNoise, noisePlaces, sampleNoise } from '../../noise/sample';
import { noiseParams, settingsFrom, type NoiseValues } from '../../noise/noise-params';
import { boundsOf } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { randomSource } from '../../maths/random';
import { handlesOf } from '../handles';
import { stepKind } from '../index';
import { regionParams, regionWeights, type Region } from './region';

const context = { clock: { frame: 0, frames: 60 }, detail: 'draft' as const };
const ball = form('geodesic', { frequency: 12 });
const weights = (v: Partial<Region>, mesh: Mesh = ball, other?: Mesh) =>
  regionWeights({ ...(defaultsOf(regionParams) as unknown as Region), ...v }, mesh, {
    ...context,
    other: () => other,
  })!;
const each = (m: Mesh) =>
  Array.from({ length: m.positions.length / 3 }, (_, i) => [0, 1, 2].map((k) => m.positions[3 * i + k]));
const smooth = (t: number) => (t <= 0 ? 0 : t >= 1 ? 1 : t * t * (3 - 2 * t));

describe('regions', () => {
  it('a ball, a box, a slab and a rod fall off with distance from their sides', () => {
    const far: Record<string, (p: number[]) => number> = {
      ball: (p) => Math.hypot(...p),
      box: (p) => Math.max(...p.map(Math.abs)),
      slab: (p) => Math.abs(p[1]),
      rod: (p) => Math.hypot(p[0], p[2]),
    };
    for (const region of ['ball', 'box', 'slab', 'rod'] as const) {
      const w = weights({ region, regionAt: [0.3, 0.2, 0.1], regionSize: 0.4, soft: 0.5 });
      each(ball).forEach((p, i) =>
        expect(w[i]).toBeCloseTo(smooth(1 - (far[region](p.map((x, k) => x - [0.3, 0.2, 0.1][k])) - 0.4) / 0.5), 5),
      );
    }
  });
  it('combine: where both, where either, and not where the second is', () => {
    const [a, b] = [
      weights({ region: 'ball', regionAt: [0.5, 0, 0] }),
      weights({ region: 'slab', regionAt: [0, 0.4, 0], regionSize: 0.3 }),
    ];
    const both = {
      region: 'ball',
      regionAt: [0.5, 0, 0],
      alsoShape: 'slab',
      alsoAt: [0, 0.4, 0],
      alsoSize: 0.3,
    } as const;
    const [and, or, not] = (['and', 'or', 'not'] as const).map((also) => weights({ ...both, also }));
    for (let i = 0; i < a.length; i++) {
      expect(and[i]).toBeCloseTo(a[i] * b[i], 5);
      expect(or[i]).toBeCloseTo(Math.max(a[i], b[i]), 5);
      expect(not[i]).toBeCloseTo(a[i] * (1 - b[i]), 5);
    }
  });
  it('facing takes what looks that way, by the angle', () => {
    const w = weights({ region: 'facing', regionTowards: [0, 2, 0], regionAngle: 50, softShare: 0 });
    each(ball).forEach((p, i) => {
      const off = (Math.acos(p[1]) * 180) / Math.PI;
      if (Math.abs(off - 50) > 3) expect(w[i]).toBe(off < 50 ? 1 : 0);
    });
  });
  it('near a ribbon goes by the nearest of its points', () => {
    const other = form('plane', { columns: 6, rows: 6, width: 1, depth: 1 });
    const w = weights({ region: 'near', regionSize: 0.3, soft: 0.4 }, ball, other);
    each(ball).forEach((p, i) => {
      const nearest = Math.min(...each(other).map((q) => Math.hypot(...q.map((x, k) => x - p[k]))));
      expect(w[i]).toBeCloseTo(smooth(1 - (nearest - 0.3) / 0.4), 4);
    });
    expect([...weights({ region: 'near' })].every((x) => x === 0)).toBe(true);
  });
  it('patches cover about the share they are told to, and come round', () => {
    const big = form('plane', { width: 40, depth: 40, columns: 120, rows: 120 });
    for (const regionShare of [20, 50, 80]) {
      const w = weights({ region: 'patches', regionShare, regionScale: 0.9, softShare: 20 }, big);
      expect(Math.abs(w.reduce((a, b) => a + b, 0) / w.length - regionShare / 100)).toBeLessThan(0.08);
    }
    const v = { ...(defaultsOf(regionParams) as unknown as Region), region: 'patches' as const, regionRate: 2 };
    expect(regionWeights(v, ball, { ...context, clock: { frame: 60, frames: 60 } })).toEqual(
      regionWeights(v, ball, context),
    );
  });
  it('keep every step out of where they are not', () => {
    const body = form('box', { segments: 10 });
    for (const kind of [
      'displace',
      'twist',
      'bend',
      'taper',
      'shear',
      'inflate',
      'spherify',
      'jitter',
      'push',
      'smooth',
      'ripple',
    ]) {
      const out = step(kind, body, { region: 'slab', regionAt: [0, -0.7, 0], regionSize: 0.2, soft: 0 });
      each(body).forEach((p, i) => p[1] > -0.45 && expect(each(out)[i]).toEqual(p));
    }
  });
});

describe('vector noise', () => {
  const settings = { ...settingsFrom(defaultsOf(noiseParams) as unknown as NoiseValues), scale: 0.9 };
  it('a current neither gathers nor thins out: its divergence is a small part of its change', () => {
    const random = randomSource(4);
    const at = Float32Array.from({ length: 3 * 400 }, () => random() * 6);
    const h = 0.02;
    const moved = (axis: number, by: number) =>
      curlNoise(
        settings,
        context.clock,
        at.map((x, i) => (i % 3 === axis ? x + by : x)),
      );
    const d = [0, 1, 2].map((axis) => {
      const [a, b] = [moved(axis, h), moved(axis, -h)];
      return a.map((x, i) => (x - b[i]) / (2 * h));
    });
    let [divergence, change] = [0, 0];
    for (let i = 0; i < 400; i++) {
      divergence += (d[0][3 * i] + d[1][3 * i + 1] + d[2][3 * i + 2]) ** 2;
      for (let a = 0; a < 3; a++) for (let k = 0; k < 3; k++) change += d[a][3 * i + k] ** 2;
    }
    expect(Math.sqrt(divergence / change)).toBeLessThan(0.02);
    expect(change).toBeGreaterThan(1);
  });
  it('displaces every way, and closes', () => {
    for (const direction of ['vector', 'curl']) {
      const out = step('displace', ball, { direction, height: 0.2 });
      expect(each(out).some((p, i) => Math.abs(Math.hypot(...p) - Math.hypot(...each(ball)[i])) < 1e-3)).toBe(true);
      expect(
        step('displace', ball, { direction, height: 0.2 }, { clock: { frame: 60, frames: 60 } }).positions,
      ).toEqual(out.positions);
    }
  });
});

describe('noise on the surface', () => {
  it('meets itself where the surface comes round, both ways', () => {
    const v = {
      ...(defaultsOf(noiseParams) as unknown as NoiseValues),
      space: 'surface' as const,
      tile: 4,
      octaves: 3,
    };
    const { settings } = noisePlaces(v, form('torus'));
    const line = (x: (s: number) => [number, number]) =>
      sampleNoise(
        settings,
        context.clock,
        Float32Array.from(Array.from({ length: 100 }, (_, i) => [...x(i / 100), 0]).flat()),
      );
    const along = [line((s) => [4 * s, 0]), line((s) => [4 * s, 4]), line((s) => [0, 4 * s]), line((s) => [4, 4 * s])];
    for (let i = 0; i < 100; i++) {
      expect(along[0][i]).toBeCloseTo(along[1][i], 5);
      expect(along[2][i]).toBeCloseTo(along[3][i], 5);
    }
    expect(Math.max(...along[0]) - Math.min(...along[0])).toBeGreaterThan(0.2);
  });
  it('a form without places on its surface says what to do', () => {
    expect(() => step('displace', step('links', ball, { rod: 0, keep: true }), { space: 'surface' })).not.toThrow();
    expect(() => step('displace', form('drops', { cells: 12 }), { space: 'surface' })).toThrow(
      'choose the space it stands in',
    );
  });
});

describe('pictures', () => {
  // Left half black, right half white.
  const picture = { width: 4, height: 2, values: Float32Array.from([0, 0, 1, 1, 0, 0, 1, 1]) };
  const known = { asset: () => ({ type: 'picture' as const, picture }) };
  it('white lifts, black lowers, and nothing is said about a picture that is there', () => {
    const out = step(
      'displace',
      form('plane', { width: 2, depth: 2, columns: 8, rows: 8 }),
      { by: 'picture', picture: 'a', direction: 'y', height: 0.5, laid: 'y', pictureSize: 2 },
      known,
    );
    each(out).forEach(
      ([x, y]) => Math.abs(x) > 0.3 && Math.abs(x) < 0.7 && expect(y).toBeCloseTo(x > 0 ? 0.5 : -0.5, 5),
    );
  });
  it('one that is not chosen or not there is asked for', () => {
    expect(() => step('displace', ball, { by: 'picture' })).toThrow('choose one');
    expect(() => step('displace', ball, { by: 'picture', picture: 'b' })).toThrow('choose it again');
  });
});

describe('along a path', () => {
  const circle = form('curve', { curve: 'ring', size: 2, along: 300 });
  it('a bar laid round a closed ring meets itself, and is as long as the ring', () => {
    const bar = form('box', { size: [0.1, 1, 0.1], segments: 60 });
    const out = step('along', bar, {}, { other: () => circle });
    for (const p of each(out)) expect(Math.abs(Math.hypot(p[0], p[2]) - 2)).toBeLessThan(0.08);
    const [low, high] = [
      each(out)[each(bar).findIndex((p) => p[1] === -0.5)],
      each(out)[each(bar).findIndex((p) => p[1] === 0.5)],
    ];
    expect(Math.hypot(...low.map((x, k) => x - high[k]))).toBeLessThan(0.2);
    expect(
      step('along', bar, { at: 100 }, { other: () => circle }).positions.every(
        (x, i) => Math.abs(x - out.positions[i]) < 1e-4,
      ),
    ).toBe(true);
  });
  it('wants a ribbon that is a curve', () => {
    expect(() => step('along', ball)).toThrow('needs a ribbon that is a curve');
    expect(() => step('along', ball, {}, { other: () => ball })).toThrow('needs a ribbon that is a curve');
  });
});

describe('free cage', () => {
  it('a move shared by all points shifts the form, and one corner moves only its side', () => {
    const body = form('box', { segments: 6 });
    const all = step('cage', body, { moves: Array.from({ length: 27 }, () => [0.2, 0, -0.1]) });
    each(all).forEach((p, i) => p.forEach((x, k) => expect(x).toBeCloseTo(each(body)[i][k] + [0.2, 0, -0.1][k], 5)));
    const one = step('cage', body, {
      moves: Array.from({ length: 27 }, (_, i) => (i === 26 ? [0.3, 0.3, 0.3] : [0, 0, 0])),
    });
    const bounds = boundsOf(one.positions)!;
    // Bernstein’s weight of the last corner is 1 at that corner and 0 on the sides away from it.
    expect(bounds.max.every((x) => Math.abs(x - 1) < 1e-5)).toBe(true);
    expect(bounds.min.every((x) => Math.abs(x + 0.7) < 1e-5)).toBe(true);
  });
});

describe('push', () => {
  it('another ribbon pushes points away from its nearest ones', () => {
    const other = step('place', form('geodesic', { radius: 0.2, frequency: 4 }), { shift: [1, 0, 0] });
    const out = step(
      'push',
      ball,
      { away: 'ribbon', amount: 0.2, reach: 0.8 },
      { other: (p) => (p === 'other' ? other : undefined) },
    );
    const [near, far] = [
      each(ball).findIndex((p) => p[0] < -0.9),
      each(ball).reduce(
        (best, p, i, all) =>
          Math.hypot(p[0] - 0.6, p[1] - 0.6) < Math.hypot(all[best][0] - 0.6, all[best][1] - 0.6) ? i : best,
        0,
      ),
    ];
    expect(each(out)[near]).toEqual(each(ball)[near]);
    expect(each(out)[far]).not.toEqual(each(ball)[far]);
    expect(() => step('push', ball, { away: 'ribbon' })).toThrow('name another ribbon');
  });
});

describe('handles', () => {
  const handles = (kind: string, values: object = {}, body: Float32Array | null = null) =>
    handlesOf(stepKind(kind).params, { ...defaultsOf(stepKind(kind).params), ...values } as never, body);
  it('a twist has its pivot and its angle on a ring square to its axis', () => {
    const [angle, pivot] = handles('twist', { angle: 90, axis: 'y' }, ball.positions);
    expect([angle.shape, pivot.shape]).toEqual(['angle', 'place']);
    expect(angle.at[1]).toBeCloseTo(0, 9);
    expect(Math.hypot(...angle.at)).toBeCloseTo(angle.ring!, 9);
  });
  it('regions and second regions have theirs only while they are in use', () => {
    expect(handles('displace')).toHaveLength(0);
    expect(handles('displace', { region: 'ball' }).map((h) => h.param)).toEqual(['regionAt', 'regionSize']);
    expect(handles('displace', { region: 'ball', also: 'or' }).map((h) => h.param)).toEqual([
      'regionAt',
      'regionSize',
      'alsoAt',
      'alsoSize',
    ]);
  });
  it('drawn curves have one a point, and a cage one a corner of its lattice', () => {
    expect(handles('curve', { curve: 'drawn' })).toHaveLength(5);
    expect(handles('curve', { curve: 'knot' })).toHaveLength(0);
    const grid = handles('cage', { cells: '2' }, Float32Array.from([-1, -1, -1, 1, 1, 1]));
    expect(grid.map((h) => [...h.at])).toContainEqual([1, -1, 1]);
    expect(grid).toHaveLength(8);
  });
});
