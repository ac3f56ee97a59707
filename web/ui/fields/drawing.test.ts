import type { MotionDoc } from '@maypole/core/time/motion';
import { describe, expect, it } from 'vitest';
import { valuePath } from './drawing';

const wave = (over: object = {}): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  low: -1,
  high: 1,
  turns: 1,
  phase: 0,
  ...over,
});
const points = (path: string) =>
  [...path.matchAll(/[ML]([-\d.]+) ([-\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);

describe('the drawing of a value', () => {
  it('runs from edge to edge, low at the bottom and high at the top, inside its margin', () => {
    const p = points(valuePath(wave(), 100, 40, { samples: 100, pad: 5 }));
    expect(p[0][0]).toBe(0);
    expect(p.at(-1)![0]).toBe(100);
    expect(Math.min(...p.map((q) => q[1]))).toBeCloseTo(5, 1);
    expect(Math.max(...p.map((q) => q[1]))).toBeCloseTo(35, 1);
    expect(p[25][1]).toBeCloseTo(5, 1);
  });
  it('meets itself at the seam for whole turns, and shows the gap for others', () => {
    const ends = (turns: number) => {
      const p = points(valuePath(wave({ turns, shape: 'triangle' }), 100, 40));
      return Math.abs(p[0][1] - p.at(-1)![1]);
    };
    expect(ends(3)).toBe(0);
    expect(ends(1.25)).toBeGreaterThan(10);
  });
  it('goes on into the neighbour loops as the value itself does', () => {
    const all = points(valuePath(wave({ turns: 2 }), 300, 40, { from: -1, to: 2, samples: 300 }));
    for (let i = 0; i <= 100; i++) {
      expect(all[i][1]).toBeCloseTo(all[i + 100][1], 1);
      expect(all[i + 200][1]).toBeCloseTo(all[i + 100][1], 1);
    }
  });
  it('of a still value, or of one without height, is a level line', () => {
    for (const value of [3, wave({ low: 2, high: 2 })])
      expect(new Set(points(valuePath(value, 50, 20)).map((q) => q[1]))).toEqual(new Set([10]));
  });
});
