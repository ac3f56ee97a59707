import { describe, expect, it } from 'vitest';
import type { MotionDoc } from '../motion';
import { derivativeOf, evaluateNumber, turnsOf } from '../value';
import { motionKind, motionKinds } from './index';

const wave = (over: Partial<Record<string, string | number>> = {}): MotionDoc =>
  ({ motion: 'wave', shape: 'sine', width: 50, low: -2, high: 4, turns: 1, phase: 0, rest: 0, ...over }) as MotionDoc;
const wander = (over: Partial<Record<string, number>> = {}): MotionDoc =>
  ({ motion: 'wander', low: 0, high: 1, rate: 3, octaves: 2, seed: 1, ...over }) as MotionDoc;
const at = (m: MotionDoc, frame: number, frames = 120) => evaluateNumber(m, { frame, frames });

describe('wave', () => {
  it('passes through the textbook values of each shape at the quarters of a cycle', () => {
    const quarters = (shape: string) => [0, 30, 60, 90].map((f) => at(wave({ shape }), f));
    expect(quarters('sine').map((v) => Number(v.toFixed(12)))).toEqual([1, 4, 1, -2]);
    expect(quarters('triangle')).toEqual([1, 4, 1, -2]);
    expect(quarters('saw')).toEqual([-2, -0.5, 1, 2.5]);
    expect(quarters('pulse')).toEqual([4, 4, -2, -2]);
    expect(quarters('cosine').map((v) => Number(v.toFixed(12)))).toEqual([4, 1, -2, 1]);
    expect(quarters('smoothstep')).toEqual([-2, 1, 4, 1]);
    expect(quarters('bounce').map((v) => Number(v.toFixed(4)))).toEqual([-2, 2.2426, 4, 2.2426]);
  });
  it('a pulse is high for its width of the cycle', () => {
    const high = (width: number) =>
      Array.from({ length: 1000 }, (_, f) => at(wave({ shape: 'pulse', width, turns: 4 }), f, 1000)).filter(
        (v) => v === 4,
      ).length;
    expect([0, 20, 50, 100].map(high)).toEqual([0, 200, 500, 1000]);
  });
  it('with a rest it stands at low round the seam, swings in full in the middle, and closes whatever its turns', () => {
    const m = wave({ rest: 20, turns: 3.3, shape: 'cosine' });
    for (const f of [0, 5, 11.9, 108.1, 115, 120]) expect(at(m, f)).toBe(-2);
    expect(derivativeOf(m, { frame: 0, frames: 120 })).toBe(0);
    for (let f = 40; f <= 80; f++) expect(at(m, f)).toBe(at(wave({ turns: 3.3, shape: 'cosine' }), f));
    expect(turnsOf(m)).toEqual({ num: 1, den: 1 });
    let steepest = 0;
    for (let f = 0; f < 120; f += 0.1) steepest = Math.max(steepest, Math.abs(at(m, f + 0.1) - at(m, f)));
    // Nothing jumps: no step of a tenth of a frame is larger than the swing's own.
    expect(steepest).toBeLessThan(0.12);
  });
  it('reaches low and high and never leaves them', () => {
    for (const shape of ['sine', 'cosine', 'triangle', 'saw', 'pulse', 'smoothstep', 'bounce'])
      for (let f = 0; f <= 240; f += 0.37) {
        const v = at(wave({ shape, turns: 3, phase: 0.13 }), f);
        expect(v).toBeGreaterThanOrEqual(-2);
        expect(v).toBeLessThanOrEqual(4);
      }
  });
  it('goes round twice as often with twice the turns, with nothing to try out', () => {
    for (let f = 0; f < 60; f++) expect(at(wave({ turns: 2 }), f)).toBe(at(wave({ turns: 1 }), 2 * f));
  });
  it('shifts by phase in turns', () => expect(at(wave({ phase: 0.25 }), 0)).toBeCloseTo(4, 12));
  it('closes exactly with whole turns, and misses with others', () => {
    for (const turns of [1, 2, 5, -3])
      expect(at(wave({ turns, phase: 0.37 }), 120)).toBe(at(wave({ turns, phase: 0.37 }), 0));
    expect(at(wave({ turns: 1.25 }), 120)).toBeCloseTo(4, 12);
    expect(turnsOf(wave({ turns: 1.25 }))).toEqual({ num: 5, den: 4 });
  });
});

describe('wander', () => {
  it('closes exactly, for any rate and seed', () => {
    for (const rate of [0.25, 1, 2.75, 16])
      for (const seed of [0, 1, 99])
        for (const f of [0, 1, 37]) expect(at(wander({ rate, seed }), f + 120)).toBe(at(wander({ rate, seed }), f));
  });
  it('fills low to high over the loop', () => {
    for (const seed of [1, 2, 3]) {
      const values = Array.from({ length: 12_000 }, (_, i) => at(wander({ seed, low: 10, high: 20 }), i / 100));
      expect(Math.min(...values)).toBeCloseTo(10, 2);
      expect(Math.max(...values)).toBeCloseTo(20, 2);
      expect(Math.min(...values)).toBeGreaterThanOrEqual(10 - 1e-9);
      expect(Math.max(...values)).toBeLessThanOrEqual(20 + 1e-9);
    }
  });
  it('is as lively at the seam as elsewhere: its mean speed over many seeds is even round the loop', () => {
    const speeds = new Float64Array(24);
    for (let seed = 0; seed < 600; seed++)
      for (let i = 0; i < 24; i++) speeds[i] += derivativeOf(wander({ seed }), { frame: i * 5, frames: 120 }) ** 2;
    const mean = speeds.reduce((a, b) => a + b) / 24;
    for (const s of speeds) expect(Math.abs(s / mean - 1)).toBeLessThan(0.2);
  });
  it('swells more often at a higher rate', () => {
    const crossings = (rate: number) => {
      let n = 0;
      for (let seed = 0; seed < 20; seed++) {
        const v = Array.from({ length: 1000 }, (_, i) => at(wander({ rate, seed, octaves: 1 }), i, 1000));
        const mean = v.reduce((a, b) => a + b) / v.length;
        for (let i = 0; i < 1000; i++) if ((v[i] - mean) * (v[(i + 1) % 1000] - mean) < 0) n++;
      }
      return n;
    };
    expect(crossings(8)).toBeGreaterThan(1.8 * crossings(3));
  });
});

describe('every motion', () => {
  const samples: MotionDoc[] = [
    wave(),
    wave({ turns: 2.5, phase: 0.2 }),
    wave({ shape: 'triangle', phase: 0.1 }),
    wave({ shape: 'saw', phase: 0.4 }),
    wave({ shape: 'cosine' }),
    wave({ shape: 'smoothstep', turns: 3 }),
    wave({ shape: 'bounce', phase: 0.3 }),
    wave({ rest: 30, turns: 2 }),
    wander(),
    wander({ rate: 7, octaves: 4 }),
  ];
  it('has the derivative that central differences give', () => {
    for (const m of samples)
      for (const frame of [3.3, 17.1, 55.5, 101.7]) {
        const h = 1e-5;
        const slope = (at(m, frame + h) - at(m, frame - h)) / (2 * h);
        expect(derivativeOf(m, { frame, frames: 120 })).toBeCloseTo(slope, 5);
      }
  });
  it('starts inside the limits of the value it moves', () => {
    const param = { min: 0, max: 5, soft: [0, 5] as const, integer: false };
    for (const kind of motionKinds)
      for (const value of [0, 0.1, 2.5, 5]) {
        const m = kind.start(value, param) as unknown as { low: number; high: number };
        if (!('low' in kind.params)) continue;
        expect(m.low).toBeGreaterThanOrEqual(0);
        expect(m.high).toBeLessThanOrEqual(5);
        expect(m.high).toBeGreaterThan(m.low);
      }
  });
  it('is known by its kind, and an unknown one is named', () => {
    expect(motionKind('wave').title).toBe('Wave');
    expect(() => motionKind('wobble')).toThrow('no motion called “wobble”');
  });
});
