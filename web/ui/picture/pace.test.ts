import { describe, expect, it } from 'vitest';
import { Pace } from './pace';

/** Draws one picture after the other, each of which takes `cost` at full size; gives how coarse each was. */
function drawn(pace: Pace, count: number, cost: number, wait = 16, from = 0): number[] {
  let now = from;
  return Array.from({ length: count }, () => {
    const coarse = pace.begin(now);
    now += cost / coarse ** 2;
    pace.end(now);
    now += wait;
    return coarse;
  });
}

describe('the pace of a picture', () => {
  it('is whole where drawing is quick, and where pictures are far apart', () => {
    expect(drawn(new Pace(), 5, 8)).toEqual([1, 1, 1, 1, 1]);
    expect(drawn(new Pace(), 3, 300, 400)).toEqual([1, 1, 1]);
  });
  it('gets coarser in a movement until it is no longer slow, and stays so: it does not go to and fro', () => {
    expect(drawn(new Pace(), 6, 120)).toEqual([1, 2, 2, 2, 2, 2]);
    expect(drawn(new Pace(), 6, 400)).toEqual([1, 2, 4, 4, 4, 4]);
    expect(drawn(new Pace(), 4, 5000)).toEqual([1, 2, 4, 4]);
    for (let cost = 5; cost < 2000; cost += 5) {
      const last = drawn(new Pace(), 12, cost).slice(6);
      expect(new Set(last).size, `${cost} ms`).toBe(1);
    }
  });
  it('is whole again after a pause, and finer again when drawing has become quick', () => {
    const pace = new Pace();
    drawn(pace, 4, 120);
    expect(pace.begin(10_000)).toBe(1);
    // One that only took long because something was compiled does not stay coarse.
    const once = new Pace();
    once.begin(0);
    once.end(900);
    expect(drawn(once, 4, 12, 16, 910)).toEqual([2, 1, 1, 1]);
  });
});
