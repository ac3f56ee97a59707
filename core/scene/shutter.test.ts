import { describe, expect, it } from 'vitest';
import { instantInRounds, instantOf, instantsOf, MOST_INSTANTS } from './shutter';

describe('the shutter', () => {
  it('is open evenly about the frame, and every part of that time is looked at once', () => {
    for (const subframes of [2, 8, 24, 64]) {
      const list = instantsOf(0.5, subframes);
      expect(list.length).toBe(Math.min(MOST_INSTANTS, 2 ** Math.floor(Math.log2(subframes))));
      const sorted = [...list].sort((a, b) => a - b);
      sorted.forEach((t, i) => expect(t).toBeCloseTo(((i + 0.5) / list.length - 0.5) * 0.5, 12));
      expect(list.reduce((a, b) => a + b)).toBeCloseTo(0, 12);
    }
  });
  it('goes over the whole of it early: the first two instants lie in different halves, the first four in different quarters', () => {
    const list = instantsOf(1, 16);
    expect(new Set(list.slice(0, 2).map((t) => Math.floor(2 * (t + 0.5)))).size).toBe(2);
    expect(new Set(list.slice(0, 4).map((t) => Math.floor(4 * (t + 0.5)))).size).toBe(4);
  });
  it('is an instant at 0 and for a single picture; each sub-frame has one of them, all equally many', () => {
    expect(instantsOf(0, 64)).toEqual([0]);
    expect(instantsOf(0.5, 1)).toEqual([0]);
    const counts = new Array(16).fill(0);
    for (let n = 0; n < 64; n++) counts[instantOf(n, 64, 16)]++;
    expect(counts).toEqual(new Array(16).fill(4));
  });
  it('is gone through once in each 64 of many sub-frames, each instant as often as any other', () => {
    for (const subframes of [24, 64, 128, 1024]) {
      const round = Math.min(64, subframes);
      for (let from = 0; from < subframes; from += round) {
        const seen = Array.from({ length: round }, (_, n) => instantInRounds(from + n, subframes, 8));
        expect(seen.map(String).sort()).toEqual(
          Array.from({ length: round }, (_, n) => String(Math.floor((n * 8) / round))),
        );
      }
    }
  });
});
