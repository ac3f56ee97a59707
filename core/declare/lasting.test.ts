import { describe, expect, it } from 'vitest';
import { inTimeUnit, timeUnitOf } from './lasting';
import { number } from './params';

describe('lengths of time', () => {
  it('4 s at 25 frames a second are 100 frames, so a frame is 1 %; of 240 frames a tenth is 24', () => {
    expect(inTimeUnit(1, 'frames', '%', 100)).toBe(1);
    expect(inTimeUnit(10, '%', 'frames', 240)).toBe(24);
    for (const x of [-3, 0, 0.4, 12])
      expect(inTimeUnit(inTimeUnit(x, '%', 'frames', 96), 'frames', '%', 96)).toBeCloseTo(x, 12);
  });
  it('are told from other shares and counts', () => {
    expect(timeUnitOf(number('Later', 0, '', { unit: '%', time: true }))).toBe('%');
    expect(timeUnitOf(number('Share', 0, '', { unit: '%' }))).toBeNull();
  });
});
