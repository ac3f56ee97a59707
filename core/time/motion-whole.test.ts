import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import type { MotionDoc } from './motion';
import { scaledValue, shiftedValue } from './reshape';
import { springResponse } from './spring';
import { courseOf, derivativeOf, evaluateNumber, prepareNumber, totalOf } from './value';

const N = 128;
const at = (m: MotionDoc, frame: number, frames = N) => evaluateNumber(m, { frame, frames });
const sine: MotionDoc = { motion: 'wave', shape: 'sine', width: 50, low: -1, high: 1, turns: 1, phase: 0, rest: 0 };
const RANGE = { soft: [-10, 10] as const, min: -1000, max: 1000, integer: false };
const some = (count: number, target: Parameters<Dice['layered']>[0] = RANGE) =>
  Array.from({ length: count }, (_, seed) => new Dice(seed * 13 + 7).layered(target));

describe('any closed motion', () => {
  it('agrees at f and f + N bit for bit at whole frames', () => {
    for (const m of some(250))
      for (const f of [0, 1, 31, 100])
        for (const loops of [1, -1, 3]) expect(at(m, f + loops * N), JSON.stringify(m)).toBe(at(m, f));
  });
  it('that turns an angle agrees as an angle', () => {
    const cyclic = 360;
    for (const m of some(150, { ...RANGE, soft: [-180, 180], cyclic }))
      for (const f of [0, 5, 77])
        expect(evaluateNumber(m, { frame: f + N, frames: N }, cyclic) % 360, JSON.stringify(m)).toBe(
          evaluateNumber(m, { frame: f, frames: N }, cyclic) % 360,
        );
  });
  it('has the derivative that central differences give, away from corners', () => {
    let compared = 0;
    for (const m of some(120)) {
      if (courseOf(m, N).sharp) continue;
      for (const frame of [3.3, 40.7, 90.1]) {
        const slope = (h: number) => (at(m, frame + h) - at(m, frame - h)) / (2 * h);
        // Where two step sizes disagree there is a corner or a jump near by.
        if (Math.abs(slope(1e-4) - slope(2e-4)) > 1e-6) continue;
        expect(derivativeOf(m, { frame, frames: N }), JSON.stringify(m)).toBeCloseTo(slope(1e-4), 3);
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(80);
  });
  it('has energy only at whole multiples of the loop frequency: over four loops all lines but every fourth are empty (npm fft.js)', () => {
    const size = 4 * N;
    const fft = new FFT(size);
    for (const m of some(60)) {
      const out = fft.createComplexArray();
      fft.realTransform(
        out,
        Array.from({ length: size }, (_, f) => at(m, f)),
      );
      let [on, off] = [0, 0];
      for (let k = 1; k < size / 2; k++) {
        const energy = out[2 * k] ** 2 + out[2 * k + 1] ** 2;
        if (k % 4 === 0) on += energy;
        else off += energy;
      }
      expect(off).toBeLessThanOrEqual(1e-18 * (on + size * size));
    }
  });
});

describe('timing', () => {
  const timed = (timing: MotionDoc['timing'], base: MotionDoc = sine): MotionDoc => ({ ...base, timing });
  it('shifts later by a part of the loop', () => {
    for (let f = 0; f < N; f += 5) expect(at(timed({ shift: 0.25 }), f)).toBeCloseTo(at(sine, f - N / 4), 12);
  });
  it('goes backwards, several times, there and back', () => {
    const keys: MotionDoc = { motion: 'keys', adds: 8, keys: [{ at: 0, value: 0, to: 'linear' }] };
    expect(at(timed({ way: 'back' }, keys), 32)).toBeCloseTo(-2, 12);
    expect(courseOf(timed({ way: 'back', times: 3 }, keys), N).adds).toBe(-24);
    expect(at(timed({ times: 3 }, keys), N)).toBe(24);
    const there = timed({ way: 'there' }, keys);
    expect([0, 32, 64, 96, 128].map((f) => at(there, f))).toEqual([0, 4, 8, 4, 0]);
    expect(courseOf(there, N).adds).toBe(0);
    for (let f = 0; f < N; f += 11) expect(at(timed({ times: 2 }), f)).toBeCloseTo(at(sine, 2 * f), 12);
  });
  it('a fraction of a turn closes when it is gone through often enough', () => {
    const half = { ...sine, turns: 1.5 };
    expect(courseOf(half, N).turns).toEqual({ num: 3, den: 2 });
    expect(courseOf(timed({ times: 2 }, half), N).turns).toEqual({ num: 3, den: 1 });
    expect(at(timed({ times: 2 }, half), N)).toBe(at(timed({ times: 2 }, half), 0));
    expect(courseOf(timed({ times: 3 }, half), N).turns).toEqual({ num: 9, den: 2 });
  });
  it('rests round the seam and is at rest there', () => {
    const m = timed({ rest: 0.2 }, { motion: 'keys', adds: 360, keys: [{ at: 0, value: 0, to: 'linear' }] });
    expect([-10, -3, 0, 5, 12].map((f) => at(m, f))).toEqual([0, 0, 0, 0, 0]);
    expect(derivativeOf(m, { frame: 0, frames: N })).toBe(0);
    expect(at(m, N / 2)).toBeCloseTo(180, 9);
    expect(at(m, N)).toBe(360);
  });
});

describe('layers', () => {
  it('act in their order: (a + b) · c is not a · c + b', () => {
    const [b, c]: MotionDoc[] = [
      { ...sine, turns: 2, low: 0, high: 3 },
      { ...sine, turns: 3, low: 0, high: 2 },
    ];
    const add = { how: 'add' as const, on: true, motion: b };
    const times = { how: 'multiply' as const, on: true, motion: c };
    for (const f of [3, 50, 99]) {
      expect(at({ ...sine, layers: [add, times] }, f)).toBeCloseTo((at(sine, f) + at(b, f)) * at(c, f), 12);
      expect(at({ ...sine, layers: [times, add] }, f)).toBeCloseTo(at(sine, f) * at(c, f) + at(b, f), 12);
      expect(at({ ...sine, layers: [{ ...add, on: false }] }, f)).toBe(at(sine, f));
    }
  });
  it('the period is the least common multiple; a turning angle times a swing never closes', () => {
    expect(
      courseOf({ ...sine, turns: 0.5, layers: [{ how: 'add', on: true, motion: { ...sine, turns: 1 / 3 } }] }, N).turns
        .den,
    ).toBe(6);
    expect(
      courseOf(
        {
          motion: 'keys',
          adds: 360,
          keys: [{ at: 0, value: 0, to: 'linear' }],
          layers: [{ how: 'multiply', on: true, motion: sine }],
        },
        N,
      ).open,
    ).toBe(true);
  });
});

describe('a spring', () => {
  const respond = (driver: MotionDoc, swings: number, damping: number) =>
    springResponse(prepareNumber(driver, N), { swings, damping }, N);
  it('answers a sine with the textbook amplitude and phase of a driven damped oscillator', () => {
    // Steady state of x″ + 2ζω₀x′ + ω₀²x = ω₀² sin ωt: |H| = 1/√((1−r²)² + (2ζr)²), lag atan2(2ζr, 1−r²), r = ω/ω₀
    // (any textbook on vibration, e.g. Den Hartog, Mechanical Vibrations, ch. 2).
    for (const [turns, swings, zeta] of [
      [1, 3, 0.3],
      [2, 2, 0.2],
      [5, 2.5, 0.7],
      [1, 4, 1],
      [3, 2, 1.6],
    ]) {
      const r = turns / swings;
      const gain = 1 / Math.hypot(1 - r * r, 2 * zeta * r);
      const lag = Math.atan2(2 * zeta * r, 1 - r * r);
      const x = respond({ ...sine, turns }, swings, zeta);
      for (let f = 0; f < N; f += 9)
        expect(x.base({ frame: f, frames: N })).toBeCloseTo(gain * Math.sin((2 * Math.PI * turns * f) / N - lag), 4);
    }
  });
  it('agrees with a long forward integration (Runge–Kutta, sixty loops from rest)', () => {
    const driver: MotionDoc = { motion: 'wander', low: -2, high: 5, rate: 3, octaves: 2, seed: 9 };
    const [swings, zeta] = [2.3, 0.25];
    const w = 2 * Math.PI * swings;
    const u = (t: number) => evaluateNumber(driver, { frame: t * N, frames: N });
    const f = (t: number, x: number, v: number): [number, number] => [v, w * w * (u(t) - x) - 2 * zeta * w * v];
    let [x, v] = [0, 0];
    const steps = 2048;
    const h = 1 / steps;
    const seen: number[] = [];
    for (let i = 0; i < 12 * steps; i++) {
      const t = i * h;
      if (i >= 11 * steps && i % 128 === 0) seen.push(x);
      const [a, b] = f(t, x, v);
      const [c, d] = f(t + h / 2, x + (h / 2) * a, v + (h / 2) * b);
      const [e, g] = f(t + h / 2, x + (h / 2) * c, v + (h / 2) * d);
      const [k, l] = f(t + h, x + h * e, v + h * g);
      x += (h / 6) * (a + 2 * c + 2 * e + k);
      v += (h / 6) * (b + 2 * d + 2 * g + l);
    }
    const ours = respond(driver, swings, zeta);
    seen.forEach((value, i) => expect(ours.base({ frame: (i * 128 * N) / steps, frames: N })).toBeCloseTo(value, 4));
  });
  it('ends as it began, in place and speed, and follows what turns with a constant lag', () => {
    const x = respond({ ...sine, shape: 'pulse' }, 4, 0.1);
    expect(x.base({ frame: N, frames: N })).toBe(x.base({ frame: 0, frames: N }));
    expect(x.speed({ frame: N, frames: N })).toBe(x.speed({ frame: 0, frames: N }));
    expect(x.base({ frame: N - 1e-6, frames: N })).toBeCloseTo(x.base({ frame: 0, frames: N }), 4);
    const spin = respond({ motion: 'keys', adds: 360, keys: [{ at: 0, value: 0, to: 'linear' }] }, 2, 0.5);
    for (const f of [0, 30, 127, 300])
      expect(totalOf(spin, { frame: f, frames: N })).toBeCloseTo((360 * f) / N - 360 * (1 / (4 * Math.PI)), 6);
  });
});

describe('stairs', () => {
  const stairs = (over: object): MotionDoc => ({
    motion: 'stairs',
    from: 0,
    adds: 360,
    count: 4,
    way: 'ease',
    rest: 10,
    returns: 'on',
    ...over,
  });
  it('four quarter turns of 30 frames each (common practice): at each landing a quarter more, resting before the next', () => {
    expect([0, 30, 60, 90, 120].map((f) => evaluateNumber(stairs({}), { frame: f, frames: 120 }))).toEqual([
      0, 90, 180, 270, 360,
    ]);
    for (const f of [27, 28.5, 29.9]) expect(evaluateNumber(stairs({}), { frame: f, frames: 120 })).toBe(90);
  });
  it('at once is a staircase; coming back closes', () => {
    expect([0, 29, 30, 95].map((f) => evaluateNumber(stairs({ way: 'hold' }), { frame: f, frames: 120 }))).toEqual([
      0, 0, 90, 270,
    ]);
    const back = stairs({ returns: 'back', adds: 10, rest: 0, way: 'linear' });
    expect([0, 30, 60, 90, 120].map((f) => evaluateNumber(back, { frame: f, frames: 120 }))).toEqual([0, 5, 10, 5, 0]);
  });
});

describe('reshaping a whole value', () => {
  it('shifts and scales every kind of motion at every moment', () => {
    for (const m of some(60)) {
      if (m.layers?.some((l) => l.how === 'multiply' && l.on)) continue;
      for (const f of [0, 17, 80]) {
        const wide = [-1e6, 1e6] as const;
        expect(at(shiftedValue(m, 2.5, wide) as MotionDoc, f)).toBeCloseTo(at(m, f) + 2.5, 3);
        expect(at(scaledValue(m, 3, wide) as MotionDoc, f) / 30).toBeCloseTo(at(m, f) / 10, 3);
      }
    }
  });
  it('moved as a whole below a layer that multiplies, it moves by just as much, at every moment', () => {
    const wave = { motion: 'wave', shape: 'sine', width: 50, low: 1, high: 4, turns: 1, phase: 0.1, rest: 0 };
    const factor = { how: 'multiply', on: true, motion: { ...wave, low: 0.2, high: 3, turns: 2 } };
    const plus = { how: 'add', on: true, motion: { ...wave, low: -1, high: 1, turns: 3 } };
    for (const layers of [
      [factor],
      [plus, factor],
      [factor, plus],
      [{ ...factor, on: false }],
      [factor, plus, factor],
    ]) {
      const value = { ...wave, layers } as unknown as MotionDoc;
      const at = (v: MotionDoc, frame: number) => evaluateNumber(v, { frame, frames: 48 });
      let moved = value;
      for (const [by, sum] of [
        [2.5, 2.5],
        [-1, 1.5],
      ]) {
        moved = shiftedValue(moved, by, [-1e6, 1e6]) as MotionDoc;
        for (const f of [0, 5, 17, 40]) expect(at(moved, f)).toBeCloseTo(at(value, f) + sum, 5);
      }
      // Dragged on and on, it has one layer more at most.
      expect(moved.layers!.length).toBeLessThanOrEqual(layers.length + 1);
    }
  });
  it('raises a formula that was raised before instead of adding again', () => {
    const once = shiftedValue({ motion: 'formula', text: 'sin(2*pi*t)' }, 1, [-9, 9]) as MotionDoc;
    expect(once.text).toBe('(sin(2*pi*t)) + 1');
    expect((shiftedValue(once, 0.5, [-9, 9]) as MotionDoc).text).toBe('(sin(2*pi*t)) + 1.5');
  });
});
