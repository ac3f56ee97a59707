import { describe, expect, it } from 'vitest';
import { subframesFor } from './drawer';
import { extentOf } from './extent';
import { lensOffset, pixelOffset } from './subframes';

const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;

describe('sub-frames', () => {
  it('look from points evenly over the pixel: mean 0 and variance 1/12 each way', () => {
    const all = Array.from({ length: 256 }, (_, n) => pixelOffset(n));
    expect(pixelOffset(0)).toEqual([0, 0]);
    for (const k of [0, 1]) {
      expect(mean(all.map((p) => p[k]))).toBeCloseTo(0, 2);
      expect(mean(all.map((p) => p[k] ** 2))).toBeCloseTo(1 / 12, 2);
    }
  });
  it('look from points evenly over the lens: all within it, mean 0, mean squared distance ½, as of a full disc', () => {
    const all = Array.from({ length: 1024 }, (_, n) => lensOffset(n));
    expect(lensOffset(0)).toEqual([0, 0]);
    for (const p of all) expect(Math.hypot(...p)).toBeLessThanOrEqual(1);
    for (const k of [0, 1]) expect(mean(all.map((p) => p[k]))).toBeCloseTo(0, 1);
    expect(mean(all.map(([x, y]) => x * x + y * y))).toBeCloseTo(0.5, 2);
  });
  it('are more where a lens or the size of a lamp makes things soft', () => {
    const few = { edges: 4, soft: 24 };
    const frame = (lensRadius: number, lights: object[]) => ({ scene: { camera: { lensRadius }, lights } }) as never;
    const sun = { type: 'sun', shadow: true, angle: 0.5 };
    expect(subframesFor(frame(0, []), few)).toBe(4);
    expect(subframesFor(frame(0, [{ ...sun, shadow: false }, { ...sun, angle: 0 }, { type: 'studio' }]), few)).toBe(4);
    expect(subframesFor(frame(0, [sun]), few)).toBe(24);
    expect(subframesFor(frame(0.01, []), few)).toBe(24);
    expect(subframesFor(frame(0, [{ type: 'ball', shadow: true, radius: 0.1 }]), few)).toBe(24);
    expect(subframesFor(frame(0, [{ type: 'area', shadow: true }]), few)).toBe(24);
    expect(subframesFor(frame(0, [{ type: 'sky', shade: 0.5 }]), few)).toBe(48);
  });
});

describe('the extent of a frame', () => {
  const part = (positions: number[], matrices?: number[]) => ({
    positions: Float32Array.from(positions),
    ...(matrices
      ? {
          instances: {
            matrices: Float32Array.from(matrices),
            numbers: new Uint32Array(matrices.length / 16),
            order: new Float32Array(0),
            ids: new Uint32Array(0),
          },
        }
      : {}),
  });
  const frame = (...parts: object[]) => ({ ribbons: [{ shape: { parts } }] }) as never;
  it('is the ball round the box of all that stands in it', () => {
    const { centre, radius } = extentOf(frame(part([0, 0, 0, 2, 0, 0]), part([0, 4, 0, 0, 0, 4])));
    expect(centre).toEqual([1, 2, 2]);
    expect(radius).toBe(3);
  });
  it('holds every copy, however large; nothing has a size all the same', () => {
    const at = (x: number, size: number) => [size, 0, 0, 0, 0, size, 0, 0, 0, 0, size, 0, x, 0, 0, 1];
    const { centre, radius } = extentOf(frame(part([-1, 0, 0, 1, 0, 0], [...at(-10, 1), ...at(10, 3)])));
    for (const x of [-11, 13]) expect(Math.abs(x - centre[0])).toBeLessThanOrEqual(radius);
    expect(extentOf(frame())).toEqual({ centre: [0, 0, 0], radius: 1 });
  });
});
