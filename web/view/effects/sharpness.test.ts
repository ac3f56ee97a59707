import { describe, expect, it } from 'vitest';
import { newItem } from '@maypole/core/piece/piece';
import { cameras } from '@maypole/core/scene/index';
import { halfHeight } from '@maypole/core/scene/lens';
import { evaluateValues } from '@maypole/core/time/values';
import { dotsOf, MOST_DOTS } from '../objects/dots';
import { blurWidth } from './sharpness';

const clock = { frame: 0, frames: 25 };
const cameraWith = (values: object) => {
  const kind = cameras.get('orbit');
  return kind.at(evaluateValues(kind.params, newItem(kind, values as never).values, clock), clock);
};

describe('how wide a point is in the picture', () => {
  it('is the circle of a thin lens, by the distances of its images: 1/v = 1/F − 1/d (Hecht, Optics, 5.2)', () => {
    const at = cameraWith({ focalLength: 85, fNumber: 1.4, distance: 3 });
    const half = halfHeight(at, 1, 1);
    const lens = 0.085;
    const image = (d: number) => 1 / (1 / lens - 1 / d);
    for (const d of [1, 2, 2.9, 3, 3.5, 10, 400]) {
      const across = ((2 * at.lensRadius * Math.abs(image(d) - image(3))) / image(d)) * 1;
      expect(blurWidth(at, d, half)).toBeCloseTo(across / (2 * half * image(3)), 9);
    }
    expect(blurWidth(at, 3, half)).toBe(0);
  });
  it('where rays are parallel grows evenly with the distance from what is sharp', () => {
    const at = cameraWith({ lens: 'parallel', span: 4, fNumber: 2, distance: 8 });
    const half = halfHeight(at, 1, 1);
    expect(blurWidth(at, 12, half)).toBeCloseTo(blurWidth(at, 4, half), 12);
    expect(blurWidth(at, 16, half)).toBeCloseTo(2 * blurWidth(at, 12, half), 12);
  });
});

describe('dots', () => {
  it('are at every point of every copy, and no more than may be', () => {
    const positions = Float32Array.of(0, 0, 0, 1, 0, 0);
    expect([...dotsOf({ positions })]).toEqual([...positions]);
    const copies = (n: number) => {
      const matrices = new Float32Array(16 * n);
      for (let i = 0; i < n; i++) matrices.set([2, 0, 0, 0, 0, 2, 0, 0, 0, 0, 2, 0, i, 5, 0, 1], 16 * i);
      const numbers = Uint32Array.from({ length: n }, (_, i) => i);
      return { matrices, numbers, ids: numbers, order: new Float32Array(n) };
    };
    expect([...dotsOf({ positions, instances: copies(2) })]).toEqual([0, 5, 0, 2, 5, 0, 1, 5, 0, 3, 5, 0]);
    const many = new Float32Array(3 * 400_000);
    expect(dotsOf({ positions: many, instances: copies(5) }).length / 3).toBeLessThanOrEqual(MOST_DOTS);
  });
});
