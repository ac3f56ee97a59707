import { describe, expect, it } from 'vitest';
import { frameRate, framesForSeconds, loopSeconds, wrapFrame } from './loop';
import { phaseOf, wholePhase } from './phase';
import { formatRational, gcd, isWhole, lcm, rational, toRational } from '../maths/rational';
import { randomSource, randomUnitVector } from '../maths/random';

describe('frame arithmetic of common practice', () => {
  // Common practice of the trade, no single source.
  it.each([
    [25, 4, 100],
    [24, 10, 240],
    [30, 10, 300],
  ])('%i fps × %i s = %i frames', (fps, seconds, frames) => {
    expect(framesForSeconds(seconds, fps)).toBe(frames);
    expect(loopSeconds({ frames, fps })).toBe(seconds);
  });

  it('takes NTSC rates as n·1000/1001 (SMPTE ST 12-1)', () => {
    expect(frameRate(23.976)).toEqual({ num: 24000, den: 1001 });
    expect(frameRate(29.97)).toEqual({ num: 30000, den: 1001 });
    expect(frameRate(59.94)).toEqual({ num: 60000, den: 1001 });
    expect(frameRate(25)).toEqual({ num: 25, den: 1 });
    expect(loopSeconds({ frames: 30000, fps: 29.97 })).toBeCloseTo(1001, 9);
  });

  it('has at least one frame', () => expect(framesForSeconds(0.0001, 25)).toBe(1));
  it('wraps frames for display, negative ones too', () => {
    expect(wrapFrame(100, 100)).toBe(0);
    expect(wrapFrame(-1, 100)).toBe(99);
  });
});

describe('rational turns', () => {
  it('reads typed decimals as the simple fractions that are meant', () => {
    expect(toRational(1.5)).toEqual({ num: 3, den: 2 });
    expect(toRational(0.3333333)).toEqual({ num: 1, den: 3 });
    expect(toRational(-2)).toEqual({ num: -2, den: 1 });
    expect(toRational(2.4)).toEqual({ num: 12, den: 5 });
  });
  it('finds the convergents of π (Hardy & Wright, ch. X)', () => {
    expect(toRational(Math.PI, 0, 100)).toEqual({ num: 22, den: 7 });
    expect(toRational(Math.PI, 0, 150)).toEqual({ num: 355, den: 113 });
  });
  it('reduces, compares and formats', () => {
    expect(rational(6, -4)).toEqual({ num: -3, den: 2 });
    expect(gcd(84, 36)).toBe(12);
    expect(lcm(4, 6)).toBe(12);
    expect(isWhole(rational(4, 2))).toBe(true);
    expect(formatRational(rational(5, 2))).toBe('5/2');
    expect(() => rational(1, 0)).toThrow('1/0 is not a fraction');
    expect(() => toRational(NaN)).toThrow('not a finite number');
  });
});

describe('exact phase', () => {
  it('is the same double at f = 0 and f = N for whole turns, whatever N', () => {
    for (const frames of [1, 7, 24, 97, 100, 241, 1000, 9973])
      for (const turns of [1, 2, 3, 7, 13, -4, 1000]) {
        const at = (frame: number) => wholePhase(turns, { frame, frames });
        expect(Object.is(at(frames), at(0))).toBe(true);
        expect(Object.is(at(3 * frames), at(0))).toBe(true);
        // Frames one loop apart are equal too, where floating division would not be.
        expect(at(frames + 1)).toBe(at(1));
        expect(at(-1)).toBe(at(frames - 1));
      }
  });
  it('keeps fractions of turns honest: half a turn more at f = N', () => {
    expect(phaseOf({ num: 3, den: 2 }, { frame: 100, frames: 100 })).toBe(0.5);
    expect(phaseOf({ num: 1, den: 3 }, { frame: 100, frames: 100 })).toBe(1 / 3);
  });
  it('takes frames between frames', () => expect(wholePhase(1, { frame: 12.5, frames: 100 })).toBe(0.125));
});

describe('seeded random numbers', () => {
  it('repeat for a seed and differ between seeds', () => {
    const take = (seed: number) => Array.from({ length: 5 }, randomSource(seed));
    expect(take(7)).toEqual(take(7));
    expect(take(7)).not.toEqual(take(8));
  });
  it('are even: mean ½ and variance 1/12 within five standard errors', () => {
    const n = 100_000;
    const x = Array.from({ length: n }, randomSource(3));
    const mean = x.reduce((a, b) => a + b) / n;
    const variance = x.reduce((a, b) => a + (b - mean) ** 2, 0) / n;
    expect(Math.abs(mean - 0.5)).toBeLessThan(5 * Math.sqrt(1 / 12 / n));
    expect(Math.abs(variance - 1 / 12)).toBeLessThan(5 * Math.sqrt(1 / 180 / n));
  });
  it('give unit vectors with mean 0 and mean square ⅓ along each axis', () => {
    const random = randomSource(11);
    const n = 20_000;
    const sum = [0, 0, 0];
    const square = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      const v = randomUnitVector(random);
      expect(Math.hypot(...v)).toBeCloseTo(1, 12);
      v.forEach((x, k) => {
        sum[k] += x / n;
        square[k] += (x * x) / n;
      });
    }
    for (let k = 0; k < 3; k++) {
      expect(Math.abs(sum[k])).toBeLessThan(0.02);
      expect(Math.abs(square[k] - 1 / 3)).toBeLessThan(0.01);
    }
  });
});
