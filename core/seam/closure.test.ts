import { describe, expect, it } from 'vitest';
import { ConnectivityBuilder, meshOf } from '../shape/builder';
import type { Mesh } from '../shape/mesh';
import { randomSource } from '../maths/random';
import { closureOf, meshDistance } from './distance';
import { loopSpeeds, seamSpeeds } from './speeds';
import { closingMotions, evenSpeed, loopsToClose, smoothed } from './repairs';
import { wholeTurnsNear } from '../time/closing';
import { numbersOf } from '../piece/addresses';
import { newPiece, newRibbon, newStep } from '../piece/piece';
import type { MotionDoc } from '../time/motion';
import { closes, courseOf, derivativeOf, evaluateNumber } from '../time/value';

/** A cloud of points, as one face. */
function cloud(points: readonly (readonly number[])[]): Mesh {
  const faces = new ConnectivityBuilder();
  faces.face(points.map((_, i) => i));
  return meshOf(faces.finish(points.length), Float32Array.from(points.flat()));
}

const random = randomSource(31);
const scattered = Array.from({ length: 60 }, () => [random() * 4, random() * 4, random() * 4]);

describe('how a shape closes', () => {
  it('exactly, where every point is where it was', () => {
    expect(closureOf(cloud(scattered), cloud(scattered))).toMatchObject({ how: 'exact', byPoint: { largest: 0 } });
  });
  it('up to rounding, where it is off by less than single precision can tell', () => {
    const near = scattered.map((p) => p.map((x) => x * (1 + 2e-7)));
    expect(closureOf(cloud(scattered), cloud(near)).how).toBe('rounding');
  });
  it('with its parts permuted, where the same points are there in another order', () => {
    const shuffled = [...scattered.slice(17), ...scattered.slice(0, 17)];
    const closure = closureOf(cloud(scattered), cloud(shuffled));
    expect(closure.how).toBe('permuted');
    expect(closure.asSet!.largest).toBeCloseTo(0, 6);
    expect(closure.byPoint.largest).toBeGreaterThan(0.5);
  });
  it('not at all, where one point of many is elsewhere: both ways are looked at', () => {
    const moved = scattered.map((p, i) => (i === 5 ? [p[0] + 0.5, p[1], p[2]] : p));
    expect(closureOf(cloud(scattered), cloud(moved))).toMatchObject({
      how: 'open',
      byPoint: { largest: expect.closeTo(0.5, 5) },
    });
    // A point that is gone is missed by the one way, a point that is new by the other.
    const fewer = cloud(scattered.slice(1));
    expect(closureOf(cloud(scattered), fewer).how).toBe('open');
    expect(closureOf(fewer, cloud(scattered)).how).toBe('open');
  });
  it('does not depend on the size of the shape', () => {
    for (const scale of [1e-3, 1, 1e4]) {
      const at = (k: number) => cloud(scattered.map((p) => p.map((x) => x * scale * k)));
      expect(closureOf(at(1), at(1 + 1e-7)).how).toBe('rounding');
      expect(closureOf(at(1), at(1.01)).how).toBe('open');
    }
  });
  it('distance is the same both ways round', () => {
    const [a, b] = [cloud(scattered), cloud(scattered.slice(3).map((p) => p.map((x) => x + 0.1)))];
    expect(meshDistance(a, b).largest).toBeCloseTo(meshDistance(b, a).largest, 9);
  });
});

describe('speeds at the seam', () => {
  const wave = (over: object): MotionDoc => ({
    motion: 'wave',
    shape: 'sine',
    width: 50,
    low: -1,
    high: 1,
    turns: 1,
    phase: 0,
    rest: 0,
    ...over,
  });
  it('of a sine are those of calculus, on both sides', () => {
    for (const phase of [0, 0.1, 0.4]) {
      const { before, after, jump } = seamSpeeds(wave({ phase, turns: 3 }), 90);
      const slope = ((2 * Math.PI * 3) / 90) * Math.cos(2 * Math.PI * phase);
      expect(before).toBeCloseTo(slope, 4);
      expect(after).toBeCloseTo(slope, 4);
      expect(jump).toBeCloseTo(0, 6);
    }
  });
  it('of a triangle with its corner at the seam turn round there; of a saw they jump', () => {
    const corner = seamSpeeds(wave({ shape: 'triangle', phase: 0.25 }), 80);
    expect(corner.before).toBeCloseTo(-corner.after, 6);
    expect(Math.abs(corner.after)).toBeCloseTo(4 / 80, 6);
    expect(seamSpeeds(wave({ shape: 'saw' }), 80).jump).toBeCloseTo(-2, 2);
  });
  it('of an even turn are even, through any gain', () => {
    const spin: MotionDoc = { motion: 'keys', adds: 360, keys: [{ at: 0.3, value: 5, to: 'linear' }] };
    expect(seamSpeeds(spin, 60)).toMatchObject({
      before: expect.closeTo(6, 4),
      after: expect.closeTo(6, 4),
      jump: expect.closeTo(0, 4),
    });
    expect(loopSpeeds(spin, 60)).toEqual({ mean: expect.closeTo(6, 9), largest: expect.closeTo(6, 9) });
  });
});

describe('parts of repairs', () => {
  const params = numbersOf({
    ...newPiece('P'),
    ribbons: [{ ...newRibbon('box', 0), steps: [newStep('box'), newStep('spin'), newStep('twist')] }],
  });
  const cyclic = params.find((p) => p.title === 'Spin angle')!.param;
  const plain = params.find((p) => p.title === 'Twist angle')!.param;
  const keys = (adds: number, ...list: [number, number, string][]): MotionDoc => ({
    motion: 'keys',
    adds,
    keys: list.map(([at, value, to]) => ({ at, value, to })),
  });
  it('whole turns near a fraction, the nearest first, never none', () => {
    expect(
      [
        [5, 4],
        [3, 2],
        [1, 3],
        [-1, 4],
        [-7, 3],
      ].map(([num, den]) => wholeTurnsNear({ num, den })),
    ).toEqual([[1, 2], [1, 2], [1], [-1], [-2, -3]]);
  });
  it('loops until a value comes round, worked out by hand', () => {
    expect(loopsToClose(keys(90, [0, 0, 'linear']), 360, 60)).toBe(4);
    expect(loopsToClose(keys(240, [0, 0, 'linear']), 360, 60)).toBe(3);
    expect(loopsToClose(keys(90, [0, 0, 'linear']), undefined, 60)).toBeNull();
    expect(
      loopsToClose(
        { motion: 'wave', shape: 'sine', low: 0, high: 1, turns: 5 / 6, phase: 0 } as MotionDoc,
        undefined,
        60,
      ),
    ).toBe(6);
    // What would need more frames than a loop can have is not offered.
    expect(loopsToClose(keys(1, [0, 0, 'linear']), 360, 60)).toBeNull();
  });
  it('closing motions all close, of an angle and of a length', () => {
    for (const [motion, param] of [
      [keys(100, [0, 0, 'linear'], [0.4, 60, 'smooth']), cyclic],
      [keys(100, [0, 0, 'ease']), plain],
      [{ motion: 'formula', text: '50*t + sin(3*pi*t)', otherwise: 0 }, plain],
      [{ motion: 'stairs', from: 0, adds: 50, count: 3, way: 'ease', rest: 0, returns: 'on' }, cyclic],
    ] as const) {
      const found = closingMotions(motion as MotionDoc, param, 60);
      expect(found.length).toBeGreaterThan(0);
      for (const c of found) expect(closes(courseOf(c.motion, 60), param.cyclic), c.words).toBe(true);
      expect(new Set(found.map((c) => c.words)).size).toBe(found.length);
    }
  });
  it('a layer at fault is mended where it is, and the base left alone', () => {
    const motion: MotionDoc = {
      ...keys(0, [0, 0, 'smooth'], [0.5, 30, 'smooth']),
      layers: [
        { how: 'add', on: true, motion: { motion: 'wave', shape: 'sine', low: 0, high: 9, turns: 2.4, phase: 0 } },
      ],
    };
    const [first] = closingMotions(motion, plain, 60);
    expect(first.motion).toMatchObject({ motion: 'keys', keys: motion.keys, layers: [{ motion: { turns: 2 } }] });
  });
  it('even speed keeps the order and values of keys, and the first where it is', () => {
    const motion = keys(360, [0.25, 10, 'ease'], [0.3, 100, 'hold'], [0.9, 190, 'free']);
    const even = evenSpeed(motion);
    const list = even.keys as { at: number; value: number; to: string }[];
    expect(list.map((k) => k.to)).toEqual(['linear', 'linear', 'linear']);
    expect(list.map((k) => [Number(k.at.toFixed(6)), k.value])).toEqual([
      [0.25, 10],
      [0.5, 100],
      [0.75, 190],
    ]);
    for (let f = 0; f < 60; f += 7) expect(derivativeOf(even, { frame: f, frames: 60 })).toBeCloseTo(6, 9);
    // Values that do not change have no speed to be made even.
    expect(evenSpeed(keys(0, [0, 3, 'linear'], [0.5, 3, 'linear']))).toEqual(
      keys(0, [0, 3, 'linear'], [0.5, 3, 'linear']),
    );
  });
  it('smoothed keys go through the same values with no corner', () => {
    const motion = smoothed(keys(0, [0, 0, 'linear'], [0.3, 9, 'hold'], [0.7, -4, 'ease']));
    for (const [frame, value] of [
      [0, 0],
      [18, 9],
      [42, -4],
    ]) {
      expect(evaluateNumber(motion, { frame, frames: 60 })).toBeCloseTo(value, 9);
      const h = 1e-4;
      const side = (d: number) => (evaluateNumber(motion, { frame: frame + d, frames: 60 }) - value) / d;
      expect(side(h)).toBeCloseTo(side(-h), 2);
    }
  });
});
