import { describe, expect, it } from 'vitest';
import { parseQuantity, QuantityError } from './quantity';

const loop = { frames: 120, fps: 24 };

describe('numbers as they are typed', () => {
  it.each<[string, string, number]>([
    ['3', 'm', 3],
    ['-0,5', 'm', -0.5],
    ['0,125', 'm', 0.125],
    ['3*2', '', 6],
    ['1/3', '×', 1 / 3],
    ['(1+2)^2', '', 9],
    ['pi/2', '', Math.PI / 2],
    ['50cm', 'm', 0.5],
    ['1m - 20 cm', 'm', 0.8],
    ['2.5 mm', 'm', 0.0025],
    ['0.5m', 'mm', 500],
    ['90deg', '°', 90],
    ['1/4 turn', '°', 90],
    ['180°', 'turns', 0.5],
    ['1/2 turns', 'turns', 0.5],
    // Time: 120 frames at 24 a second are 5 s.
    ['15f', 'frames', 15],
    ['0.5s', 'frames', 12],
    ['12f', '%', 10],
    ['0.5 s', '%', 10],
    ['50%', 'frames', 60],
    ['60 frames', 'loops', 0.5],
    ['25', '%', 25],
    ['1/4 loop', '%', 25],
    ['250ms', 'frames', 6],
    ['1.5k', 'px', 1500],
    ['80%', '×', 0.8],
    ['1e-3', 'm', 0.001],
    ['12 in', 'm', 0.3048],
    ['1 rad', 'turns', 0.5 / Math.PI],
    // Speeds and rates: the loop lasts 5 s.
    ['2 m/loop', 'm/loop', 2],
    ['45cm/loop', 'm/loop', 0.45],
    ['0.3 m/s', 'm/loop', 1.5],
    ['0.01 m/frame', 'm/loop', 1.2],
    ['1.5 /loop', '/loop', 1.5],
    ['2 Hz', '/loop', 10],
    ['3/s', '/loop', 15],
    ['-1 stop', 'EV', -1],
    ['8 beats at 120 bpm', 'frames', 96],
    ['3 bars at 90 bpm', 's', 8],
  ])('%s in %s is %d', (text, unit, value) => expect(parseQuantity(text, unit, loop)).toBeCloseTo(value, 12));
  it('rates of broadcast are exact', () =>
    expect(parseQuantity('1s', 'frames', { frames: 100, fps: 29.97 })).toBeCloseTo(30_000 / 1001, 12));
  it.each([
    ['', 'm', 'Nothing is typed; write a number.'],
    ['abc', 'm', '“abc” is not a number.'],
    ['3 deg', 'm', '“deg” is no unit of this value; use m, cm, mm, km, in.'],
    ['3 deg', '%', '“deg” is no unit of this value; use %, f, s, ms, loop.'],
    ['1,000', 'm', '“1,000” can be 1000 or 1; write one of these.'],
    ['1,250', 'm', '“1,250” can be 1250 or 1.25; write one of these.'],
    ['1.000,5', 'm', '“1.000,5” is written with marks between thousands; write 1000.5.'],
    ['12,000,000', 'm', '“12,000,000” is written with marks between thousands; write 12000000.'],
    ['3 kg', '', '“kg” is no unit of this value'],
    ['1/0', 'm', '“1/0” is not a number.'],
    ['sin(t)', 'm', '“sin(t)” is not a number.'],
    ['2**3', 'm', '“2**3” is not a number.'],
  ])('%s in %s is refused: %s', (text, unit, words) => {
    expect(() => parseQuantity(text, unit, loop)).toThrow(QuantityError);
    expect(() => parseQuantity(text, unit, loop)).toThrow(words);
  });
});
