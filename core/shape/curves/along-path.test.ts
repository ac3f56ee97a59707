import { describe, expect, it } from 'vitest';
import { form, step } from '../../fixtures/forms';
import { centresOf } from '../../copies/copies';
import { pathAlong } from './along-path';

/** Points of a helix of radius r that climbs c in each radian, from 0 to `to` radians. */
function helix(r: number, c: number, to: number, count: number): Float64Array {
  return Float64Array.from({ length: 3 * count }, (_, i) => {
    const a = (to * Math.floor(i / 3)) / (count - 1);
    return [r * Math.cos(a), c * a, r * Math.sin(a)][i % 3];
  });
}
const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, x, k) => s + x * b[k], 0);

describe('an open path', () => {
  const [r, c, to] = [1.3, 0.2, 9];
  const path = pathAlong(new Float32Array(1), helix(r, c, to, 4000), false);
  const pace = Math.hypot(r, c);
  it('is as long as the helix: √(r² + c²) a radian', () => {
    expect(path.length).toBeCloseTo(pace * to, 4);
  });
  it('is where the helix is after any length, looking along it', () => {
    for (const share of [0, 0.123, 0.5, 0.87, 1]) {
      const a = share * to;
      const { point, tangent, normal } = path.at(share * path.length);
      [r * Math.cos(a), c * a, r * Math.sin(a)].forEach((x, k) => expect(point[k]).toBeCloseTo(x, 4));
      [(-r * Math.sin(a)) / pace, c / pace, (r * Math.cos(a)) / pace].forEach((x, k) =>
        expect(tangent[k]).toBeCloseTo(x, share === 0 || share === 1 ? 2 : 4),
      );
      expect(Math.hypot(...normal)).toBeCloseTo(1, 6);
      expect(dot(normal, tangent)).toBeCloseTo(0, 6);
    }
  });
  it('turns its normal as little as possible: nowhere faster than the curve itself bends and winds', () => {
    // Curvature r/(r² + c²) bounds the turn of a frame without twist (R. L. Bishop, "There is more than one way to frame a curve", 1975).
    const most = r / (r * r + c * c);
    const step = path.length / 500;
    for (let i = 0; i < 500; i++) {
      const [u, v] = [path.at(i * step).normal, path.at((i + 1) * step).normal];
      expect(Math.acos(Math.min(1, dot(u, v))) / step).toBeLessThan(most * 1.01);
    }
  });
  it('goes on straight beyond its ends', () => {
    for (const [end, sign] of [
      [0, -1],
      [path.length, 1],
    ]) {
      const [here, beyond] = [path.at(end), path.at(end + 2.5 * sign)];
      beyond.point.forEach((x, k) => expect(x).toBeCloseTo(here.point[k] + 2.5 * sign * here.tangent[k], 6));
      expect(beyond.tangent).toEqual(here.tangent);
    }
  });
  it('is told apart from other curves of the same shape, and made once', () => {
    const key = new Float32Array(1);
    const [a, b] = [helix(1, 0, 1, 10), helix(2, 0, 1, 10)];
    expect(pathAlong(key, a, false, 0)).toBe(pathAlong(key, a, false, 0));
    expect(pathAlong(key, b, false, 10).length).toBeCloseTo(2 * pathAlong(key, a, false, 0).length, 6);
  });
  it('of a single point, or of points all in one place, has no length and a place all the same', () => {
    const { length, at } = pathAlong(new Float32Array(1), Float64Array.from([1, 2, 3, 1, 2, 3]), false);
    expect(length).toBe(0);
    expect(at(0).point).toEqual([1, 2, 3]);
    expect(at(0).tangent.every(Number.isFinite)).toBe(true);
  });
});

describe('copies on an open path', () => {
  const body = form('box', { segments: 1, size: [0.1, 0.1, 0.1] });
  const on = (values: object, frame = 0) =>
    step(
      'repeat-path',
      body,
      { ...values },
      { clock: { frame, frames: 40 }, other: () => form('curve', { curve: 'line', size: 2 }) },
    ).copies!;
  it('stand from end to end, evenly', () => {
    const at = centresOf(on({ count: 9 }));
    const gaps = Array.from({ length: 8 }, (_, i) =>
      Math.hypot(...[0, 1, 2].map((k) => at[3 * i + 3 + k] - at[3 * i + k])),
    );
    for (const g of gaps) expect(g).toBeCloseTo(4 / 8, 5);
  });
  it('are as many as fit at a distance, which is evened out', () => {
    expect(on({ by: 'spacing', spacing: 0.3 }).source).toHaveLength(Math.round(4 / 0.3) + 1);
  });
  it('that move on grow in at one end and are gone at the other, and close', () => {
    const size = (m: Float32Array, i: number) => Math.hypot(m[16 * i], m[16 * i + 1], m[16 * i + 2]);
    // As sets: each copy stands where the next one stood.
    const [first, last] = [0, 40].map((f) => {
      const m = on({ count: 9, advance: 1 }, f).matrices;
      return Array.from({ length: 9 }, (_, i) =>
        [...m.subarray(16 * i, 16 * i + 16)].map((x) => x.toFixed(5)).join(),
      ).sort();
    });
    expect(last).toEqual(first);
    const half = on({ count: 9, advance: 1 }, 20).matrices;
    const sizes = Array.from({ length: 9 }, (_, i) => size(half, i)).sort((a, b) => a - b);
    expect(sizes[0]).toBeLessThan(0.9);
    expect(sizes[8]).toBeCloseTo(1, 5);
  });
});
