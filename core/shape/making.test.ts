import { describe, expect, it } from 'vitest';
import { eulerCharacteristic, surfaceArea, volume } from './measure';
import { faceMiddle, faceNormal, gather, keepFaces } from './faces';
import { arc, lathe, straight } from './lathe';
import { copies, repeated } from './repeat';
import { surfaceNets } from './surface-nets';
import { topologyOf } from './topology';
import { closedTube } from './tube';
import { taubinSmooth, laplacianSmooth } from './laplacian';

const ball = (n: number) =>
  lathe(
    Array.from({ length: n + 1 }, (_, k) => ({
      r: k === 0 || k === n ? 0 : Math.sin((Math.PI * k) / n),
      y: -Math.cos((Math.PI * k) / n),
    })),
    2 * n,
  );

describe('lathe', () => {
  it('closes poles with triangles, leaves holes open, and turns its faces outwards', () => {
    expect(eulerCharacteristic(ball(8))).toBe(2);
    expect(volume(ball(8))).toBeGreaterThan(0);
    const pipe = lathe(
      [
        { r: 1, y: 0 },
        { r: 1, y: 2 },
      ],
      12,
    );
    expect(eulerCharacteristic(pipe)).toBe(0);
    expect([...topologyOf(pipe.connectivity).borderEdge].filter(Boolean)).toHaveLength(24);
  });
  it('a closed profile is a ring, with the volume of Pappus: area of the section times the way of its middle', () => {
    const n = 64;
    const ring = lathe(
      Array.from({ length: n }, (_, k) => ({
        r: 3 + Math.cos((2 * Math.PI * k) / n),
        y: Math.sin((2 * Math.PI * k) / n),
      })),
      128,
      true,
    );
    expect(eulerCharacteristic(ring)).toBe(0);
    expect(volume(ring) / (Math.PI * 2 * Math.PI * 3)).toBeCloseTo(1, 2);
  });
  it('parts of a profile meet: a straight part and an arc leave out their last point', () => {
    expect(straight({ r: 0, y: 0 }, { r: 4, y: 8 }, 4)).toEqual(
      [0, 1, 2, 3].map((k) => ({ r: k, y: 2 * k, group: 0 })),
    );
    const quarter = arc(1, 2, 0.5, 0, Math.PI / 2, 2);
    expect(quarter).toHaveLength(2);
    expect(quarter[0]).toEqual({ r: 1.5, y: 2, group: 0 });
    expect(quarter[1].r).toBeCloseTo(1 + 0.5 * Math.SQRT1_2, 12);
  });
  it('uses one connectivity for all sizes', () =>
    expect(
      lathe(
        [
          { r: 1, y: 0 },
          { r: 2, y: 1 },
        ],
        9,
      ).connectivity,
    ).toBe(
      lathe(
        [
          { r: 5, y: 0 },
          { r: 2, y: 7 },
        ],
        9,
      ).connectivity,
    ));
});

describe('surface nets', () => {
  const sphere = (x: number, y: number, z: number) => Math.hypot(x, y, z) - 1;
  const box = (n: number) => surfaceNets(sphere, [-1.3, -1.3, -1.3], [1.3, 1.3, 1.3], n);
  it('of a ball: closed, of genus 0, faces outwards, with area and volume of second order', () => {
    const meshes = [16, 32, 64].map(box);
    for (const m of meshes) {
      expect(eulerCharacteristic(m)).toBe(2);
      expect([...topologyOf(m.connectivity).borderEdge].some(Boolean)).toBe(false);
    }
    const errors = meshes.map((m) => Math.abs(volume(m) / ((4 / 3) * Math.PI) - 1));
    expect(errors[0] / errors[1]).toBeGreaterThan(3);
    expect(errors[2]).toBeLessThan(0.003);
    expect(surfaceArea(meshes[2]) / (4 * Math.PI)).toBeCloseTo(1, 2);
  });
  it('every vertex lies within a cell of the surface', () => {
    const m = box(40);
    const cell = 2.6 / 40;
    for (let i = 0; i < m.positions.length; i += 3)
      expect(Math.abs(sphere(m.positions[i], m.positions[i + 1], m.positions[i + 2]))).toBeLessThan(cell);
  });
  it('of a ring has genus 1, of two balls apart two parts, of nothing no faces', () => {
    const torus = surfaceNets(
      (x, y, z) => Math.hypot(Math.hypot(x, z) - 1, y) - 0.4,
      [-1.6, -0.6, -1.6],
      [1.6, 0.6, 1.6],
      48,
    );
    expect(eulerCharacteristic(torus)).toBe(0);
    const two = surfaceNets(
      (x, y, z) => Math.min(Math.hypot(x - 1, y, z), Math.hypot(x + 1, y, z)) - 0.5,
      [-1.7, -0.7, -0.7],
      [1.7, 0.7, 0.7],
      48,
    );
    expect(eulerCharacteristic(two)).toBe(4);
    expect(surfaceNets(() => 1, [0, 0, 0], [1, 1, 1], 8).connectivity.vertexCount).toBe(0);
  });
});

describe('tube', () => {
  it('round a circle is a torus: volume 2π²Rr² (Bronshtein & Semendyayev)', () => {
    const tube = closedTube(
      (u) => [2 * Math.cos(2 * Math.PI * u), 0, 2 * Math.sin(2 * Math.PI * u)],
      () => 0.3,
      160,
      48,
    );
    expect(volume(tube) / (2 * Math.PI ** 2 * 2 * 0.09)).toBeCloseTo(1, 2);
    expect(eulerCharacteristic(tube)).toBe(0);
  });
  it('has rings square to the curve, at the radius asked for along the way', () => {
    const curve = (u: number) =>
      [3 * Math.sin(2 * Math.PI * u), Math.sin(6 * Math.PI * u), 2 * Math.cos(2 * Math.PI * u)] as const;
    const tube = closedTube(curve, (s) => 0.1 + 0.05 * Math.cos(2 * Math.PI * s), 100, 8);
    for (let i = 0; i < 100; i++) {
      const ring = Array.from({ length: 8 }, (_, j) => [...tube.positions.slice(3 * (8 * i + j), 3 * (8 * i + j) + 3)]);
      const middle = [0, 1, 2].map((k) => ring.reduce((s, p) => s + p[k], 0) / 8);
      for (const p of ring)
        expect(Math.hypot(...p.map((x, k) => x - middle[k]))).toBeCloseTo(
          0.1 + 0.05 * Math.cos((2 * Math.PI * i) / 100),
          5,
        );
    }
  });
});

describe('faces', () => {
  const cube = ball(6);
  it('normals are twice the vector area, and add up to nothing on a closed form', () => {
    let sum = [0, 0, 0];
    let area = 0;
    for (let f = 0; f + 1 < cube.connectivity.faceStart.length; f++) {
      const n = faceNormal(cube.connectivity, cube.positions, f);
      area += Math.hypot(...n) / 2;
      sum = sum.map((s, k) => s + n[k]);
      const m = faceMiddle(cube.connectivity, cube.positions, f);
      expect(n[0] * m[0] + n[1] * m[1] + n[2] * m[2]).toBeGreaterThan(0);
    }
    for (const s of sum) expect(s).toBeCloseTo(0, 5);
    expect(area / surfaceArea(cube)).toBeCloseTo(1, 2);
  });
  it('keeping some leaves out the vertices that none of them uses', () => {
    const kept = keepFaces(cube.connectivity, (f) => f === 3);
    expect(kept.connectivity.faceStart).toEqual(Uint32Array.from([0, kept.from.length]));
    const positions = gather(cube.positions, kept.from);
    expect(faceMiddle(kept.connectivity, positions, 0)).toEqual(faceMiddle(cube.connectivity, cube.positions, 3));
    expect(keepFaces(cube.connectivity, () => false).connectivity.vertexCount).toBe(0);
    expect(keepFaces(cube.connectivity, () => true).connectivity.corners).toHaveLength(
      cube.connectivity.corners.length,
    );
  });
});

describe('copies', () => {
  it('are the same faces on vertices of their own; a mirror turns every other one round', () => {
    const m = ball(4);
    const three = repeated(m.connectivity, 3);
    const positions = copies(m.positions, 3, (i, to) =>
      to.set(m.positions.map((x, k) => x + (k % 3 === 0 ? 5 * i : 0))),
    );
    expect(volume({ connectivity: three, positions }) / volume(m)).toBeCloseTo(3, 4);
    expect(eulerCharacteristic({ connectivity: three, positions })).toBe(6);
    const two = repeated(m.connectivity, 2, true);
    const mirrored = copies(m.positions, 2, (i, to) =>
      to.set(m.positions.map((x, k) => (i === 1 && k % 3 === 0 ? -x : x))),
    );
    expect(volume({ connectivity: two, positions: mirrored }) / volume(m)).toBeCloseTo(2, 4);
    expect(repeated(m.connectivity, 3)).toBe(three);
    expect(repeated(m.connectivity, 1)).toBe(m.connectivity);
  });
});

describe('smoothing that keeps the volume', () => {
  it('passes low frequencies and stops high ones, as its transfer function says', () => {
    // On a ring of n points a cosine of frequency k is an eigenvector of the Laplacian: 1 − cos(2πk/n).
    const n = 64;
    const ring = {
      connectivity: {
        vertexCount: n,
        faceStart: Uint32Array.from([0, n]),
        corners: Uint32Array.from({ length: n }, (_, i) => i),
      },
      positions: new Float32Array(3 * n),
    };
    const [lambda, mu] = [0.5, 1 / (0.1 - 1 / 0.5)];
    for (const k of [1, 4, 12, 30]) {
      const positions = ring.positions.slice();
      for (let i = 0; i < n; i++) positions[3 * i + 1] = Math.cos((2 * Math.PI * k * i) / n);
      const kappa = 1 - Math.cos((2 * Math.PI * k) / n);
      const expected = ((1 - lambda * kappa) * (1 - mu * kappa)) ** 5;
      expect(taubinSmooth({ ...ring, positions }, 5, 0.5, false).positions[1]).toBeCloseTo(expected, 4);
      expect(laplacianSmooth({ ...ring, positions }, 5, 0.5, false).positions[1]).toBeCloseTo(
        (1 - lambda * kappa) ** 5,
        4,
      );
    }
  });
});
