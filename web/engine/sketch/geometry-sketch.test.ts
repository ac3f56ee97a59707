import { describe, expect, it } from 'vitest';
import { meshOfParts } from './geometry-sketch';
import { sketch } from './sketch';

const triangle = {
  topology: { triangles: Uint32Array.of(0, 1, 2), lines: new Uint32Array(0) } as never,
  positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
};
const copies = (n: number) => {
  const matrices = new Float32Array(16 * n);
  for (let i = 0; i < n; i++) matrices.set([2, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, i, 5, 0, 1], 16 * i);
  return { matrices, numbers: new Uint32Array(n), order: new Float32Array(n), ids: new Uint32Array(n) };
};

describe('sketches of shapes in view', () => {
  it('stand copies where they are', () => {
    const mesh = meshOfParts([{ ...triangle, instances: copies(2) }])!;
    expect([...mesh.positions]).toEqual([0, 5, 0, 2, 5, 0, 0, 6, 0, 1, 5, 0, 3, 5, 0, 1, 6, 0]);
    expect([...mesh.connectivity.corners]).toEqual([0, 1, 2, 3, 4, 5]);
  });
  it('draw curves as curves, and many copies by fewer of them', () => {
    const line = {
      topology: { triangles: new Uint32Array(0), lines: Uint32Array.of(0, 1, 1, 2) } as never,
      positions: triangle.positions,
    };
    expect([...meshOfParts([line])!.connectivity.curves!.points]).toEqual([0, 1, 1, 2]);
    expect(meshOfParts([{ ...triangle, instances: copies(100_000) }])!.positions.length / 3).toBeLessThanOrEqual(
      90_000,
    );
  });
  it('are none of nothing, nor of what is too large', () => {
    expect(meshOfParts([])).toBeNull();
    expect(meshOfParts([{ ...triangle, positions: new Float32Array(300_000) }])).toBeNull();
    expect(sketch(meshOfParts([triangle])!, 20, '#ffffff').some((x) => x > 0)).toBe(true);
  });
});
