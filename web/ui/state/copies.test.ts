import { newStep, type StepDoc } from '@maypole/core/piece/piece';
import { describe, expect, it } from 'vitest';
import { copiesBefore, fanOf } from './copies';

const before = (...steps: StepDoc[]) => copiesBefore({ steps }, steps.length);

describe('whether copies come into a step', () => {
  it('from a repeat on, through what changes them, until they are made one', () => {
    expect(before(newStep('box'))).toBe(false);
    expect(before(newStep('box'), newStep('repeat-line'))).toBe(true);
    expect(before(newStep('box'), newStep('stream'), newStep('vary'), newStep('swing'), newStep('twist'))).toBe(true);
    expect(before(newStep('box'), { ...newStep('repeat-line'), on: false })).toBe(false);
    expect(before(newStep('box'), newStep('repeat-line'), { ...newStep('twist'), copies: 'one' })).toBe(false);
    expect(before(newStep('box'), newStep('repeat-line'), newStep('weld'))).toBe(false);
    expect(before(newStep('box'), newStep('repeat-line'), newStep('thread'))).toBe(false);
    expect(before(newStep('box'), newStep('repeat-line'), newStep('links', { keep: true }))).toBe(true);
  });
});

describe('the fan of a motion', () => {
  it('shows some copies of those that follow late', () => {
    expect(fanOf([newStep('box'), newStep('repeat-line'), newStep('vary', { behind: 4 })], 2, 100)).toEqual([
      0.04, 0.08, 0.12, 0.16, 0.2,
    ]);
    expect(
      fanOf([newStep('box'), newStep('place'), newStep('repeat-line', { count: 30, later: 1 })], 1, 60).map((x) =>
        Math.round(60 * x),
      ),
    ).toEqual([5, 10, 15, 20, 25]);
    expect(fanOf([newStep('box'), newStep('place'), newStep('repeat-line')], 1, 60)).toEqual([]);
    expect(
      fanOf([newStep('box'), newStep('repeat-line'), newStep('vary', { what: 'late', lateTo: 50 })], 0, 60),
    ).toEqual([0.1, 0.2, 0.3, 0.4, 0.5]);
  });
});
