import { describe, expect, it } from 'vitest';
import { number, vector } from '../declare/params';
import { saysMore, typedValue } from './typed-value';
import { FIELD_RULE } from '../guide/lines';
import type { MotionDoc } from '../time/motion';

const loop = { frames: 100, fps: 25 };
const turn = vector('Turn', [0, 0, 0], 'A turn.', { unit: '°', cyclic: 360, min: -3600, max: 3600 });
const radius = number('Radius', 1, 'A radius.', { unit: 'm', min: 0, max: 10 });
const still = number('Count', 3, 'A count.', { min: 0, max: 10, moves: false });
const axes = (text: string, axis: 0 | 1 | 2, stored: readonly [number, number, number] = [1, 2, 3]) =>
  typedValue(text, { param: turn, stored, axis, loop });
const one = (text: string) => typedValue(text, { param: radius, stored: 1, loop });

describe('what is typed into a field', () => {
  it.each([
    ['0 to 1', false, true],
    ['1 2 3', false, false],
    ['1 2 3', true, true],
    ['1, 2, 3', true, true],
    ['1 -2 -3', true, true],
    ['1 - 2', true, false],
    ['0,5', true, false],
    ['1/4 turn', true, false],
    ['3 * 2', true, false],
    ['0.5 m', true, false],
    ['20 cm 1 m', true, true],
    ['round twice', false, true],
    ['8 beats at 120 bpm', false, false],
  ])('“%s” into a vector, %s: more than a number, %s', (text, isVector, more) =>
    expect(saysMore(text, isVector)).toBe(more),
  );

  it('is three numbers, or one for all', () => {
    expect(axes('4 5 6', 1)).toEqual({ value: [4, 5, 6] });
    expect(axes('4 -5', 0)).toEqual({ value: [4, -5, 3] });
    expect(axes('all 7', 2)).toEqual({ value: [7, 7, 7] });
    expect(axes('1 2 3 4', 2)).toEqual({ why: 'Turn has three numbers.' });
  });
  it('is a motion of its own axis', () => {
    const { value } = axes('0 to 360', 1) as { value: [number, MotionDoc, number] };
    expect([value[0], value[2]]).toEqual([1, 3]);
    expect(value[1]).toMatchObject({ motion: 'keys', adds: 360, keys: [{ at: 0, value: 0, to: 'linear' }] });
    const all = axes('all wave -5 to 5 twice', 1) as unknown as { value: MotionDoc[] };
    expect(all.value.map((m) => [m.motion, m.low, m.high, m.turns])).toEqual(Array(3).fill(['wave', -5, 5, 2]));
  });
  it('goes round from where it stands', () => {
    expect(axes('round twice', 2)).toMatchObject({
      value: [1, 2, { motion: 'keys', adds: 720, keys: [{ value: 3 }] }],
    });
    expect(axes('round back', 0)).toMatchObject({ value: [{ adds: -360 }, 2, 3] });
    expect(axes('3 times round', 0)).toMatchObject({ value: [{ adds: 1080 }, 2, 3] });
  });
  it('goes there and back in its unit', () => {
    expect(one('20 cm to 40 cm')).toMatchObject({ value: { motion: 'wave', low: 0.2, high: 0.4 } });
  });
  it('follows the rule that the guide shows', () => {
    for (const line of FIELD_RULE.lines) {
      expect(saysMore(line, true), line).toBe(true);
      expect(axes(line, 0), line).toHaveProperty('value');
    }
  });
  it('is told with the remedy where it is not understood', () => {
    expect(one('0 to 30')).toEqual({ why: 'Radius goes from 0 to 10 m.' });
    expect(one('0 to 1 sideways')).toEqual({ why: '“sideways” is not understood here.' });
    expect(one('round')).toHaveProperty('why');
    expect(typedValue('0 to 3', { param: still, stored: 1, loop })).toEqual({ why: 'Count does not move.' });
  });
});
