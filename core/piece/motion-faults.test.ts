import { describe, expect, it } from 'vitest';
import type { StoredValue } from '../declare/params';
import { finishValues, withFinish } from '../fixtures/edit';
import { newPiece, newRibbon, newStep } from './piece';
import { readPieceValue } from './read';

const withAngle = (angle: unknown, colour: unknown = '#336699') => {
  const ribbon = newRibbon('torus', 0);
  return readPieceValue({
    ...newPiece('Faults'),
    ribbons: [
      {
        ...withFinish(ribbon, { colour: colour as StoredValue }),
        steps: [newStep('torus'), newStep('twist', { angle: angle as StoredValue })],
      },
    ],
  });
};
const words = (angle: unknown, colour?: unknown) => {
  const read = withAngle(angle, colour);
  return read.ok
    ? 'sound'
    : `${read.faults[0].path.replace(/^ribbons\[0\]\.(steps\[1\]|finishes\[0\]\.parts\[0\])\.values\./, '')}: ${read.faults[0].message}`;
};
const key = { at: 0, value: 0, to: 'linear' };

describe('faults of motions name the place, the value and the remedy', () => {
  it.each([
    [{ motion: 'keys', adds: 0 }, 'angle.keys: Nothing is not a list of keys; there must be at least one.'],
    [
      { motion: 'keys', keys: [{ ...key, at: 1 }] },
      'angle.keys[0].at: 1 is not a place of a key; it is a share of the loop, from 0 up to but not including 1.',
    ],
    [
      { motion: 'keys', keys: [key, { ...key, to: 'bounce' }] },
      'angle.keys[1].to: "bounce" is not a way to the next key; use one of linear, smooth, spline, ease, free, hold.',
    ],
    [
      { motion: 'keys', keys: [{ ...key, value: 1e9 }] },
      'angle.keys[0].value: 1000000000 is not a value of Angle, which is a number from -36000 to 36000.',
    ],
    [
      { motion: 'keys', keys: [{ ...key, out: [-1, 0] }] },
      'angle.keys[0].out: [-1,0] is not a tangent; write [share of the loop ≥ 0, change of value].',
    ],
    [
      { motion: 'keys', keys: [{ ...key, ease: [2, 0] }] },
      'angle.keys[0].ease: [2,0] is not an easing; write two shares from 0 to 1.',
    ],
    [{ motion: 'formula', text: 'sin(' }, /^angle\.text: .*at character 5\.$/],
    [{ motion: 'formula', text: '1/0' }, /^angle\.text: This gives no number at t = 0/],
    [
      { motion: 'stairs', from: 0, adds: 1, count: 2.5 },
      'angle.count: 2.5 is not whole; Steps wants a whole number such as 3.',
    ],
    [
      { motion: 'wave', low: 0, high: 1, timing: { times: 1.5 } },
      'angle.timing.times: 1.5 is not how often it goes round, a whole number from 1 to 1000.',
    ],
    [
      { motion: 'wave', low: 0, high: 1, timing: { tempo: 2 } },
      'angle.timing.tempo: A timing has no “tempo”; leave it out.',
    ],
    [
      { motion: 'wave', low: 0, high: 1, layers: [{ how: 'mix', motion: { motion: 'wave', low: 0, high: 1 } }] },
      'angle.layers[0].how: "mix" is not how a layer acts; use add or multiply.',
    ],
    [
      { motion: 'wave', low: 0, high: 1, layers: [{ how: 'add', motion: { motion: 'hop' } }] },
      'angle.layers[0].motion.motion: "hop" is not a motion; use one of keys, wave, wander, stairs, formula, follow.',
    ],
    [
      { motion: 'wave', low: 0, high: 1, drawn: [0, 2, 0, 0], shape: 'drawn' },
      'angle.drawn[1]: 2 is not a height from 0 to 1.',
    ],
    [{ motion: 'follow', of: 7 }, 'angle.of: 7 is not the address of a value, which Follows wants.'],
  ])('%j', (angle, expected) =>
    expect(words(angle)).toEqual(typeof expected === 'string' ? expected : expect.stringMatching(expected)),
  );
  it.each([
    [
      { motion: 'cycle', colour: 'red' },
      'colour.colour: "red" is not a colour of From of Colour; write it as #rrggbb.',
    ],
    [
      { motion: 'wave', low: 0, high: 1 },
      'colour.motion: "wave" is not a motion of a colour; use one of cycle, gradient, follow.',
    ],
    [
      { motion: 'gradient', stops: [{ at: 2, colour: '#000000' }] },
      'colour.stops[0].at: 2 is not a place of a gradient; it is a share of the loop, from 0 up to but not including 1.',
    ],
  ])('%j', (colour, expected) => expect(words(0, colour)).toBe(expected));
  it('what is left out is filled in, and what is sound is kept as it is', () => {
    const read = withAngle({ motion: 'keys', keys: [key] }, { motion: 'cycle' });
    if (!read.ok) throw new Error(read.message);
    expect(read.piece.ribbons[0].steps[1].values.angle).toEqual({ motion: 'keys', adds: 0, keys: [key] });
    expect(finishValues(read.piece.ribbons[0]).colour).toMatchObject({ motion: 'cycle', turns: 1, space: 'oklch' });
  });
});
