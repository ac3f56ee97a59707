import BezierEasing from 'bezier-easing';
import { curveMonotoneX, line } from 'd3-shape';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../maths/random';
import { derivativeOf, evaluateNumber } from '../value';
import { cubicBezier } from './bezier';
import { addKey, moveKeys, pasteKeys, removeKeys, scaleKeys, setSegment, setTangent } from './edit';
import type { KeyDoc } from './key';
import { clampedSlopes, periodicSlopes } from './spline';
import { trackOf } from './track';

const motion = (keys: readonly KeyDoc[], adds = 0) => ({ motion: 'keys', adds, keys });
const at = (keys: readonly KeyDoc[], frame: number, adds = 0, frames = 100) =>
  evaluateNumber(motion(keys, adds), { frame, frames });

describe('cubic easing', () => {
  it('agrees with an independent implementation (npm bezier-easing) on random curves', () => {
    const random = randomSource(5);
    for (let n = 0; n < 400; n++) {
      const [x1, x2] = [random(), random()];
      const [y1, y2] = [random() * 3 - 1, random() * 3 - 1];
      const peer = BezierEasing(x1, y1, x2, y2);
      for (const x of [0, 0.03, 0.25, 0.5, 0.81, 1])
        expect(cubicBezier(x1, y1, x2, y2, x).value).toBeCloseTo(peer(x), 4);
    }
  });
  it('has the named curves of CSS Easing Functions Level 1, § 2.2', () => {
    // “linear” is cubic-bezier(0, 0, 1, 1); “ease-in-out” is cubic-bezier(0.42, 0, 0.58, 1) and symmetric.
    for (const x of [0.1, 0.37, 0.9]) expect(cubicBezier(0, 0, 1, 1, x).value).toBeCloseTo(x, 12);
    for (const x of [0.1, 0.37])
      expect(cubicBezier(0.42, 0, 0.58, 1, x).value + cubicBezier(0.42, 0, 0.58, 1, 1 - x).value).toBeCloseTo(1, 12);
    expect(cubicBezier(0.42, 0, 0.58, 1, 0.5).value).toBeCloseTo(0.5, 12);
  });
  it('meets the curve it was asked for: the point at parameter s lies on it, with its slope', () => {
    const random = randomSource(8);
    for (let n = 0; n < 200; n++) {
      const [x1, y1, x2, y2, s] = [random(), random() * 2, random(), random() * 2, 0.05 + 0.9 * random()];
      const bern = (a: number, b: number) => 3 * (1 - s) ** 2 * s * a + 3 * (1 - s) * s * s * b + s ** 3;
      const rate = (a: number, b: number) => 3 * (1 - s) ** 2 * a + 6 * (1 - s) * s * (b - a) + 3 * s * s * (1 - b);
      const got = cubicBezier(x1, y1, x2, y2, bern(x1, x2));
      expect(got.value).toBeCloseTo(bern(y1, y2), 9);
      if (rate(x1, x2) > 0.05) expect(got.slope).toBeCloseTo(rate(y1, y2) / rate(x1, x2), 5);
    }
  });
});

describe('keyed interpolation, by the sampler formulas of glTF 2.0 (appendix C)', () => {
  const two = (to: KeyDoc['to']): KeyDoc[] => [
    { at: 0.1, value: 2, to },
    { at: 0.6, value: 8, to: 'hold' },
  ];
  it('STEP and LINEAR', () => {
    for (const x of [0, 0.2, 0.77]) {
      expect(at(two('hold'), 10 + 50 * x)).toBe(2);
      expect(at(two('linear'), 10 + 50 * x)).toBeCloseTo((1 - x) * 2 + x * 8, 12);
    }
  });
  it('CUBICSPLINE: a free segment with its tangents at a third of the way is the Hermite curve', () => {
    const td = 0.5;
    const [m0, m1] = [9, -4];
    const keys: KeyDoc[] = [
      { at: 0.1, value: 2, to: 'free', out: [td / 3, (m0 * td) / 3] },
      { at: 0.6, value: 8, to: 'hold', in: [-td / 3, (-m1 * td) / 3] },
    ];
    for (const t of [0.1, 0.5, 0.83]) {
      const hermite =
        (2 * t ** 3 - 3 * t ** 2 + 1) * 2 +
        td * (t ** 3 - 2 * t ** 2 + t) * m0 +
        (-2 * t ** 3 + 3 * t ** 2) * 8 +
        td * (t ** 3 - t ** 2) * m1;
      expect(at(keys, 10 + 50 * t)).toBeCloseTo(hermite, 9);
    }
  });
});

describe('keys on a circle', () => {
  it('one key that adds a whole turn goes round at even speed, through the seam too', () => {
    const spin: KeyDoc[] = [{ at: 0, value: 30, to: 'linear' }];
    for (let f = -50; f <= 250; f += 12.5) {
      expect(at(spin, f, 360)).toBeCloseTo(30 + 3.6 * f, 10);
      expect(derivativeOf(motion(spin, 360), { frame: f, frames: 100 })).toBeCloseTo(3.6, 12);
    }
    expect(evaluateNumber(motion(spin, 360), { frame: 100, frames: 100 }, 360)).toBe(30);
  });
  it('is the same to the last bit at f and f + N for whole frames', () => {
    const random = randomSource(3);
    for (let n = 0; n < 60; n++) {
      const keys = Array.from({ length: 1 + Math.floor(random() * 5) }, (_, i): KeyDoc => ({
        at: (i + random()) / 6,
        value: random() * 9,
        to: (['hold', 'linear', 'ease', 'free', 'smooth', 'spline'] as const)[Math.floor(random() * 6)],
      }));
      for (let f = 0; f < 97; f += 4) expect(at(keys, f + 97, 0, 97)).toBe(at(keys, f, 0, 97));
    }
  });
  it('smooth keys are Steffen’s monotone curve: npm d3-shape draws the same through points in a row', () => {
    const random = randomSource(12);
    for (let n = 0; n < 40; n++) {
      const keys = Array.from({ length: 7 }, (_, i): KeyDoc => ({
        at: (i + 0.8 * random()) / 7,
        value: Math.round(random() * 9),
        to: 'smooth',
      }));
      const adds = Math.round(random() * 6);
      const track = trackOf(keys, adds);
      // Three loops in a row, of which the middle one knows nothing of the ends.
      const row = [-1, 0, 1].flatMap((k) => keys.map((key) => [key.at + k, key.value + k * adds] as [number, number]));
      const path = line().curve(curveMonotoneX).digits(12)(row)!;
      const cubics = [...path.matchAll(/C([^C]*)/g)].map((m) => m[1].split(',').map(Number));
      cubics.slice(7, 13).forEach((c, k) => {
        const [x0, y0] = row[7 + k];
        const s = 0.37;
        const bern = (a: number, b: number, d: number, e: number) =>
          (1 - s) ** 3 * a + 3 * (1 - s) ** 2 * s * b + 3 * (1 - s) * s * s * d + s ** 3 * e;
        const [x, y] = [bern(x0, c[0], c[2], c[4]), bern(y0, c[1], c[3], c[5])];
        expect(track.at(x).value).toBeCloseTo(y, 6);
      });
    }
  });
  it('smooth keys never go beyond the two they lie between, whatever stands beside them; speed does not jump', () => {
    const random = randomSource(13);
    let turned = 0;
    for (let n = 0; n < 120; n++) {
      const keys = Array.from({ length: 2 + Math.floor(random() * 5) }, (_, i): KeyDoc => ({
        at: (i + 0.9 * random()) / 7,
        value: random() * 9 - 4,
        to: n < 60 || random() < 0.6 ? 'smooth' : (['hold', 'linear', 'ease', 'free', 'spline'] as const)[n % 5],
      }));
      const adds = n % 3;
      const track = trackOf(keys, adds);
      keys.forEach((key, i) => {
        if (key.to !== 'smooth') return;
        const next = keys[i + 1] ?? { at: keys[0].at + 1, value: keys[0].value + adds };
        for (let k = 0; k <= 40; k++) {
          const place = key.at + ((next.at - key.at) * k) / 40 - 1e-12;
          const gained = place >= 1 ? adds : 0;
          const y = track.at(place >= 1 ? place - 1 : Math.max(key.at, place)).value + gained;
          expect(y).toBeGreaterThanOrEqual(Math.min(key.value, next.value) - 1e-9);
          expect(y).toBeLessThanOrEqual(Math.max(key.value, next.value) + 1e-9);
        }
        if (n < 60 && i > 0) {
          turned++;
          expect(track.at(key.at + 1e-9).slope).toBeCloseTo(track.at(key.at - 1e-9).slope, 3);
        }
      });
    }
    expect(turned).toBeGreaterThan(60);
  });
  it('spline keys make a spline with continuous speed and curvature at every key and at the seam', () => {
    const keys: KeyDoc[] = [0, 0.15, 0.4, 0.8].map((p, i) => ({ at: p, value: [1, 5, -2, 3][i], to: 'spline' }));
    const track = trackOf(keys, 7);
    const h = 1e-5;
    for (const { at: p } of keys) {
      const left = track.at(p === 0 ? 1 - h : p - h);
      const right = track.at(p + h);
      expect(right.slope - left.slope).toBeCloseTo(0, 1);
      const bend = (a: number) => (track.at(a + h).slope - track.at(a - h).slope) / (2 * h);
      const inner = (q: number) => (q + 1) % 1;
      expect(bend(inner(p + 3 * h)) / bend(inner(p - 3 * h === 0 ? 1 : p - 3 * h + 1))).toBeCloseTo(1, 1);
    }
  });
  it('the periodic slopes solve their equations, put out in full', () => {
    const h = [0.2, 0.35, 0.1, 0.35];
    const rise = [3, -1, 2, -4];
    const m = periodicSlopes(h, rise);
    for (let i = 0; i < 4; i++) {
      const b = (i + 3) % 4;
      const left = m[b] / h[b] + 2 * m[i] * (1 / h[b] + 1 / h[i]) + m[(i + 1) % 4] / h[i];
      expect(left).toBeCloseTo(3 * (rise[b] / h[b] ** 2 + rise[i] / h[i] ** 2), 9);
    }
    // Points of a cubic are met by the clamped spline with that cubic's own end slopes.
    const cubic = (x: number) => x ** 3 - 2 * x;
    const xs = [0, 0.3, 1, 1.4];
    const slopes = clampedSlopes(
      [0.3, 0.7, 0.4],
      [0, 1, 2].map((i) => cubic(xs[i + 1]) - cubic(xs[i])),
      -2,
      3 * 1.96 - 2,
    );
    xs.forEach((x, i) => expect(slopes[i]).toBeCloseTo(3 * x * x - 2, 9));
  });
  it('two keys at one place are a jump', () => {
    const keys: KeyDoc[] = [
      { at: 0, value: 0, to: 'linear' },
      { at: 0.5, value: 10, to: 'linear' },
      { at: 0.5, value: 20, to: 'linear' },
    ];
    expect(at(keys, 49.999)).toBeCloseTo(10, 2);
    expect(at(keys, 50)).toBe(20);
  });
});

describe('editing keys', () => {
  const keys: KeyDoc[] = [
    { at: 0.1, value: 0, to: 'linear' },
    { at: 0.5, value: 100, to: 'linear' },
    { at: 0.9, value: 300, to: 'linear' },
  ];
  const curve = (k: readonly KeyDoc[], adds: number) => Array.from({ length: 41 }, (_, i) => at(k, i * 2.5, adds));
  it('what is dragged over the seam comes in at the other side, a gain lower', () => {
    const out = moveKeys(keys, [2], { at: 0.15, value: 0 }, 360);
    expect(out.keys[0].at).toBeCloseTo(0.05, 9);
    expect(out.keys[0].value).toBeCloseTo(-60, 9);
    expect(out.chosen).toEqual([0]);
    const back = moveKeys(out.keys, out.chosen, { at: -0.15, value: 0 }, 360);
    back.keys.forEach((k, i) =>
      expect([k.at, k.value]).toEqual([expect.closeTo(keys[i].at, 9), expect.closeTo(keys[i].value, 9)]),
    );
  });
  it('moving all keys by a whole loop changes nothing', () => {
    const out = moveKeys(keys, [0, 1, 2], { at: 1, value: 360 }, 360);
    curve(out.keys, 360).forEach((v, i) => expect(v).toBeCloseTo(curve(keys, 360)[i], 6));
  });
  it('snaps to whole frames', () =>
    expect(moveKeys(keys, [1], { at: 0.0123, value: 0 }, 0, 50).keys[1].at).toBe(26 / 50));
  it('a key added on the curve does not bend straight lines', () => {
    const out = addKey(keys, 360, 0.3);
    expect(out.keys).toHaveLength(4);
    expect(out.chosen).toEqual([1]);
    curve(out.keys, 360).forEach((v, i) => expect(v).toBeCloseTo(curve(keys, 360)[i], 6));
    expect(addKey(keys, 360, -0.05).keys.at(-1)).toMatchObject({ at: expect.closeTo(0.95, 9) });
  });
  it('stretches about a place, removes all but one, pastes at a place', () => {
    const out = scaleKeys(keys, [0, 1], { at: 0.1, value: 0 }, { at: 0.5, value: 2 }, 0);
    expect(out.keys.slice(0, 2).map((k) => [k.at, k.value])).toEqual([
      [0.1, 0],
      [expect.closeTo(0.3, 9), 200],
    ]);
    expect(removeKeys(keys, [0, 1, 2]).keys).toHaveLength(1);
    const pasted = pasteKeys(keys, [keys[0], keys[1]], 0.7, 0);
    expect(pasted.keys.map((k) => Number(k.at.toFixed(3)))).toEqual([0.1, 0.1, 0.5, 0.7, 0.9]);
  });
  it('a joined tangent turns with the other, a broken one does not', () => {
    const free = setSegment(keys, [0, 1], 'free', 0);
    expect(free[1].in).toEqual([expect.closeTo(-0.4 / 3, 9), expect.closeTo(-100 / 3, 9)]);
    expect(curve(free, 0).slice(4, 36)).toEqual(
      curve(keys, 0)
        .slice(4, 36)
        .map((v) => expect.closeTo(v, 6)),
    );
    const joined = setTangent(free, 1, 'out', [0.1, 0]);
    expect(joined[1].in![1]).toBeCloseTo(0, 12);
    const broken = setTangent(
      free.map((k) => ({ ...k, broken: true })),
      1,
      'out',
      [0.1, 50],
    );
    expect(broken[1].in).toEqual(free[1].in);
    expect(setTangent(free, 1, 'out', [-3, 1])[1].out).toEqual([0, 1]);
  });
});
