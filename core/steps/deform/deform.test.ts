import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { boundsOf, volume } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { randomSource } from '../../maths/random';
import { stepKind, stepKinds } from '../index';
import { roundedAbs } from './frame';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const run = (kind: string, values: object, input: Mesh = empty, frame = 0): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, input, {
    clock: { frame, frames: 60 },
    detail: 'draft',
  });
const pillar = run('cylinder', { radius: 0.5, height: 4, sides: 12, rows: 40 });
const points = (m: Mesh) =>
  Array.from({ length: m.positions.length / 3 }, (_, i) => [...m.positions.slice(3 * i, 3 * i + 3)]);
const each = (out: Mesh, input: Mesh, expected: (p: number[]) => number[], digits = 4) =>
  points(out).forEach((p, i) => expected(points(input)[i]).forEach((x, k) => expect(p[k]).toBeCloseTo(x, digits)));

describe('against closed formulas at every point', () => {
  it('bend: an arc of radius length / angle, the middle line as long as before', () => {
    const out = run('bend', { angle: 90 }, pillar);
    const radius = 4 / (Math.PI / 2);
    // Bent about y it turns towards z, the next axis after y.
    each(out, pillar, ([x, y, z]) => {
      const a = (y / 4) * (Math.PI / 2);
      return [x, (radius - z) * Math.sin(a), radius - (radius - z) * Math.cos(a)];
    });
    const line = {
      ...pillar,
      positions: Float32Array.from({ length: 3 * 201 }, (_, i) => (i % 3 === 1 ? Math.floor(i / 3) / 50 - 2 : 0)),
    };
    for (const angle of [30, 200, -170]) {
      const p = points(run('bend', { angle }, line));
      const length = p.slice(1).reduce((s, q, i) => s + Math.hypot(...q.map((x, k) => x - p[i][k])), 0);
      expect(length).toBeCloseTo(4, 3);
    }
  });
  it('taper, shear and ripple', () => {
    each(run('taper', { start: 1, end: 0.2 }, pillar), pillar, ([x, y, z]) => {
      const k = 1 - 0.8 * ((y + 2) / 4);
      return [x * k, y, z * k];
    });
    each(run('shear', { amount: 0.7, along: 'y', towards: 'z' }, pillar), pillar, ([x, y, z]) => [x, y, z + 0.7 * y]);
    // Within an eighth of a wavelength of the middle the cusp of the distance is rounded off; see smoothness.test.ts.
    each(run('ripple', { height: 0.2, wavelength: 0.8, travels: 2 }, pillar, 15), pillar, ([x, y, z]) => [
      x,
      y + 0.2 * Math.sin(2 * Math.PI * (roundedAbs(Math.hypot(x, z), 0.1) / 0.8 - 0.5)),
      z,
    ]);
  });
  it('spherify reaches the ball; inflating a ball makes it larger by just as much', () => {
    for (const p of points(run('spherify', { amount: 100, radius: 1.5 }, pillar)))
      expect(Math.hypot(...p)).toBeCloseTo(1.5, 4);
    const ball = run('geodesic', { radius: 1, frequency: 10 });
    for (const p of points(run('inflate', { amount: 0.25 }, ball))) expect(Math.hypot(...p)).toBeCloseTo(1.25, 2);
  });
  it('push moves by its amount next to the point and not at all beyond its reach', () => {
    const line = { ...pillar, positions: Float32Array.from([0.001, 0, 0, 0.5, 0, 0, 1.3, 0, 0, 0, 0, 0]) };
    const p = points(run('push', { from: [0, 0, 0], amount: 0.4, reach: 1.2 }, line));
    expect(p.map((q) => Number(q[0].toFixed(3)))).toEqual([0.401, expect.closeTo(0.5 + 0.4 * 0.6238, 2), 1.3, 0]);
    // Drawn in, nothing goes through the point.
    expect(points(run('push', { from: [0, 0, 0], amount: -5, reach: 1.2 }, line))[1][0]).toBeCloseTo(0, 6);
  });
});

describe('pivots and regions', () => {
  it('a pivot turned by a quarter makes a twist about y a twist about another axis, with the form where it was', () => {
    const turned = run('twist', { angle: 80, axis: 'y', pivotTurn: [0, 0, 90], reach: 'length', length: 2 }, pillar);
    const plain = run('twist', { angle: 80, axis: 'x', reach: 'length', length: 2 }, pillar);
    each(
      turned,
      pillar,
      (p) => {
        const i = points(pillar).findIndex((q) => q.every((x, k) => x === p[k]));
        const q = points(plain)[i];
        // A turn of the frame by +90° about z takes its y to −x: the same twist the other way along.
        return [q[0], q[1], q[2]];
      },
      3,
    );
  });
  it('a pivot that is moved leaves its own place alone', () => {
    const out = run('taper', { start: 0, end: 0, pivot: [2, 0, 0] }, pillar);
    for (const p of points(out)) expect([p[0], p[2]]).toEqual([expect.closeTo(2, 5), expect.closeTo(0, 5)]);
  });
  it.each(['ball', 'box', 'slab', 'rod'])(
    'a %s acts inside it, not outside, and the other way when asked',
    (region) => {
      const values = { amount: 0.3, region, regionAt: [0, 1.5, 0], regionSize: 0.6, soft: 0.2 };
      const out = points(run('inflate', values, pillar));
      const other = points(run('inflate', { ...values, outside: true }, pillar));
      const full = points(run('inflate', { amount: 0.3 }, pillar));
      points(pillar).forEach((p, i) => {
        if (region === 'slab' && Math.abs(p[1] - 1.5) <= 0.6) expect(out[i]).toEqual(full[i]);
        if (region !== 'rod' && p[1] < 0.6) expect([out[i], other[i]]).toEqual([p, full[i]]);
        // What the one does not do the other does.
        out[i].forEach((x, k) => expect(x - p[k] + (other[i][k] - p[k])).toBeCloseTo(full[i][k] - p[k], 5));
      });
    },
  );
});

describe('every deformer', () => {
  // Those that work with another ribbon are tried with one elsewhere.
  const kinds = stepKinds.filter(
    (k) =>
      k.group === 'deform' &&
      !Object.entries(k.params).some(([name, p]) => p.type === 'ribbon' && name !== 'regionRibbon'),
  );
  it('gives finite points on the same connectivity over random settings, and the same bits at f = N', () => {
    const random = randomSource(12);
    for (const kind of kinds)
      for (let n = 0; n < 12; n++) {
        const values = Object.fromEntries(
          Object.entries(kind.params).map(([name, p]) => {
            if (p.type === 'number')
              return [
                name,
                p.counts || p.integer
                  ? Math.round(p.soft[0] + random() * (p.soft[1] - p.soft[0]))
                  : p.soft[0] + random() * (p.soft[1] - p.soft[0]),
              ];
            if (p.type === 'vector')
              return [
                name,
                [0, 1, 2].map(() =>
                  p.integer
                    ? Math.round(p.soft[0] + random() * (p.soft[1] - p.soft[0]))
                    : p.soft[0] + random() * (p.soft[1] - p.soft[0]),
                ),
              ];
            if (name === 'by' || name === 'space') return [name, p.default];
            if (p.type === 'choice') return [name, p.options[Math.floor(random() * p.options.length)].value];
            return [name, p.default];
          }),
        );
        const [a, b] = [0, 60].map((f) => run(kind.kind, values, pillar, f));
        expect(a.connectivity).toBe(pillar.connectivity);
        expect(a.positions.every(Number.isFinite), `${kind.kind} ${JSON.stringify(values)}`).toBe(true);
        expect(b.positions).toEqual(a.positions);
      }
  });
  it('jitter stays within its amount', () => {
    const out = points(run('jitter', { amount: [0.1, 0, 0.2], rate: 2 }, pillar, 13));
    const box = boundsOf(pillar.positions)!;
    points(pillar).forEach((p, i) =>
      out[i].forEach((x, k) => expect(Math.abs(x - p[k])).toBeLessThanOrEqual([0.1, 0, 0.2][k] + 1e-6)),
    );
    expect(box.max[1]).toBe(2);
  });
  it('smoothing that keeps the volume loses far less of it than plain smoothing', () => {
    const rough = run('displace', { height: 0.15, scale: 0.3, rate: 0 }, run('geodesic', { radius: 1, frequency: 16 }));
    const loss = (keepVolume: boolean) =>
      Math.abs(1 - volume(run('smooth', { iterations: 30, strength: 50, keepVolume }, rough)) / volume(rough));
    expect(loss(true)).toBeLessThan(0.2 * loss(false));
  });
});
