import { describe, expect, it } from 'vitest';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import { keyNear, momentAt, seenKeys, seenTangents, valueAtY, xOf, yOf, type CurveBox } from './curve-geometry';
import { mainPart, seamsBetween } from './lane-math';

const box: CurveBox = { width: 650, height: 228, from: -0.15, span: 1.3, low: -10, high: 10 };

describe('the open lane', () => {
  it('maps moments and values to pixels and back', () => {
    for (const t of [-0.1, 0, 0.5, 1.1]) expect(momentAt(box, xOf(box, t))).toBeCloseTo(t, 12);
    for (const v of [-10, 0, 3]) expect(valueAtY(box, yOf(box, v))).toBeCloseTo(v, 12);
    expect(xOf(box, 0)).toBeCloseTo(75, 9);
    expect(yOf(box, 10)).toBe(14);
  });
  const keys: KeyDoc[] = [
    { at: 0.05, value: 0, to: 'free', out: [0.1, 5] },
    { at: 0.5, value: 4, to: 'linear', in: [-0.1, 0] },
  ];
  it('shows keys in the neighbour loops too, a gain higher and lower', () => {
    const seen = seenKeys(keys, 6, box);
    expect(seen.map((k) => [k.index, k.loop])).toEqual([
      [0, 0],
      [1, 0],
      [0, 1],
    ]);
    expect(seen[2].y).toBeCloseTo(yOf(box, 6), 9);
    expect(keyNear(seen, seen[1].x + 4, seen[1].y - 4)).toMatchObject({ index: 1, loop: 0 });
    expect(keyNear(seen, 0, 0)).toBeNull();
  });
  it('shows the tangents of the chosen keys that a free segment uses', () => {
    const seen = seenKeys(keys, 0, box);
    const tangents = seenTangents(keys, [0, 1], seen, box);
    expect(tangents.filter((t) => t.loop === 0).map((t) => [t.index, t.side])).toEqual([
      [0, 'out'],
      [1, 'in'],
    ]);
    expect(tangents[0].tipX - tangents[0].x).toBeCloseTo(50, 9);
    expect(seenTangents(keys, [], seen, box)).toEqual([]);
  });
  it('knows where seams are and which loop is the main one, also with the seam in the middle', () => {
    expect(seamsBetween(-0.15, 1.15)).toEqual([0, 1]);
    expect(seamsBetween(-0.65, 0.65)).toEqual([0]);
    expect(mainPart(-0.15, 1.3).map((x) => Number(x.toFixed(9)))).toEqual([0, 1]);
    expect(mainPart(-0.65, 1.3).map((x) => Number(x.toFixed(9)))).toEqual([-0.5, 0.5]);
    expect(mainPart(0.2, 0.5)).toEqual([0.2, 0.7]);
  });
});
