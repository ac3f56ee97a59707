import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { newItem, newPiece } from '@maypole/core/piece/piece';
import { lights } from '@maypole/core/scene/index';
import { Color, Vector3 } from 'three/webgpu';
import { describe, expect, it } from 'vitest';
import { AreaLight } from '../lights/area-light';
import { sweepShape } from '@maypole/core/scene/grounds/sweep-shape';
import { domeDirection, domeUpward, lensOffset } from '../stage/subframes';
import { linesOf, MOST_LINES } from './wires';

const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;

describe('directions of light from all round', () => {
  it('are spread so that a place in the open is lit by 1: the mean of 4·max(0, cos θ) for any normal', () => {
    const all = Array.from({ length: 512 }, (_, n) => domeDirection(n));
    for (const d of all) expect(Math.hypot(...d)).toBeCloseTo(1, 9);
    for (const n of [
      [0, 1, 0],
      [1, 0, 0],
      [0.6, -0.8, 0],
      [0.48, 0.6, -0.64],
    ])
      expect(mean(all.map((d) => 4 * Math.max(0, d[0] * n[0] + d[1] * n[1] + d[2] * n[2])))).toBeCloseTo(1, 1.5);
  });
  it('for a floor come from above, as often as they count: mean height 2/3 (∫ cos² θ dω / π)', () => {
    const all = Array.from({ length: 512 }, (_, n) => domeUpward(n));
    for (const d of all) expect(d[1]).toBeGreaterThanOrEqual(0);
    expect(mean(all.map((d) => d[1]))).toBeCloseTo(2 / 3, 2);
  });
});

describe('the lens', () => {
  it('with blades is a polygon: no point beyond its sides, and its corners are reached', () => {
    const all = Array.from({ length: 2048 }, (_, n) => lensOffset(n, 6));
    const inside = Math.cos(Math.PI / 6);
    for (const [x, y] of all)
      for (let k = 0; k < 6; k++) {
        const a = (k * Math.PI) / 3 + Math.PI / 6;
        expect(x * Math.cos(a) + y * Math.sin(a)).toBeLessThanOrEqual(inside + 1e-9);
      }
    expect(Math.max(...all.map(([x, y]) => Math.hypot(x, y)))).toBeGreaterThan(0.97);
  });
});

describe('wires', () => {
  const topology = {
    key: 'k',
    triangles: new Uint32Array(),
    edges: Uint32Array.of(0, 1),
    lines: Uint32Array.of(1, 2),
    groups: [],
    closed: false,
  };
  const positions = Float32Array.of(0, 0, 0, 1, 0, 0, 1, 2, 0);
  const part = { key: 'p', topology, positions, normals: positions };
  it('are both ends of every edge and of every piece of a curve', () => {
    expect([...linesOf(part)]).toEqual([0, 0, 0, 1, 0, 0, 1, 0, 0, 1, 2, 0]);
  });
  it('stand where copies stand, as many as may be', () => {
    const matrix = [2, 0, 0, 0, 0, 2, 0, 0, 0, 0, 2, 0, 5, 6, 7, 1];
    const copies = (n: number) => ({
      matrices: Float32Array.from(Array.from({ length: n }, () => matrix).flat()),
      numbers: new Uint32Array(n),
      order: new Float32Array(n),
      ids: new Uint32Array(n),
    });
    expect([...linesOf({ ...part, instances: copies(1) })]).toEqual([5, 6, 7, 7, 6, 7, 7, 6, 7, 7, 10, 7]);
    expect(linesOf({ ...part, instances: copies(300_000) }).length / 6).toBe(MOST_LINES);
  });
});

describe('grounds', () => {
  it('a sweep is a level floor that becomes an upright wall without a crease', () => {
    const { positions, normals } = sweepShape(5, 3);
    for (let i = 0; i < positions.length; i += 3) {
      const [y, z] = [positions[i + 1], positions[i + 2]];
      if (z > -2 + 1e-6) expect(y).toBeCloseTo(0, 9);
      else if (y < 3 - 1e-6) expect(Math.hypot(y - 3, z + 2)).toBeCloseTo(3, 5);
      else expect(z).toBeCloseTo(-5, 5);
      expect(Math.hypot(normals[i + 1], normals[i + 2])).toBeCloseTo(1, 6);
    }
  });
});

describe('an area light', () => {
  const at = (values: object) =>
    sceneAt(
      { ...newPiece(), scene: { ...newPiece().scene, lights: [newItem(lights.get('area'), values as never)] } },
      0,
    ).lights[0] as Extract<ReturnType<typeof sceneAt>['lights'][number], { type: 'area' }>;

  it('gives π straight before it at three metres at 100 %, however large: radiance · area / distance²', () => {
    for (const [width, height] of [
      [0.1, 0.1],
      [2, 0.5],
    ]) {
      const { radiance } = at({ strength: 100, width, height });
      expect((radiance * width * height) / 9).toBeCloseTo(Math.PI, 9);
    }
  });

  it('looks at what it points at, and its shadow is thrown from its face', () => {
    const light = new AreaLight();
    const lamp = at({ place: [-3, 3, 2], aim: [0, 0.5, 0], width: 2, height: 1 });
    const extent = { centre: [0, 0, 0] as const, radius: 1 };
    light.place({ ...lamp, extent, point: [1, -1], reach: 8 }, new Color(1, 1, 1), lamp.radiance);
    const way = new Vector3(0, 0, -1).transformDirection(light.matrixWorld);
    const wanted = new Vector3(3, -2.5, -2).normalize();
    expect(way.distanceTo(wanted)).toBeLessThan(1e-6);
    const { from } = light.areaShadow;
    expect(from.distanceTo(light.position)).toBeCloseTo(Math.hypot(1, 0.5), 6);
    expect(from.clone().sub(light.position).dot(way)).toBeCloseTo(0, 6);
    // Nothing of what stands there is outside of what the shadow sees.
    light.areaShadow.updateMatrices();
    const { camera } = light.areaShadow;
    const half = Math.tan((camera.fov * Math.PI) / 360) * from.length();
    expect(half).toBeGreaterThan(1);
    light.dispose();
  });
});
