import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import { camera } from '@maypole/core/trace/fixture';
import { Scene, type PointLight } from 'three/webgpu';
import { describe, expect, it } from 'vitest';
import { Air } from './air';
import { AirGlows } from './air-glows';
import { AIR_LAYER } from './air-layer';
import type { DrawablePart, ViewFrame } from '../stage/frame';

/** A square of two by two metres, at a height. */
const square = (y: number): DrawablePart => ({
  key: `square ${y}`,
  topology: {
    key: 'square',
    triangles: Uint32Array.of(0, 1, 2, 0, 2, 3),
    edges: new Uint32Array(0),
    lines: new Uint32Array(0),
    groups: [{ slot: 0, start: 0, count: 6 }],
    closed: false,
  },
  positions: Float32Array.of(-1, y, -1, 1, y, -1, 1, y, 1, -1, y, 1),
  normals: Float32Array.of(0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0),
});

function frameOf(parts: readonly (readonly [DrawablePart, Partial<Surface>])[], hazy = true): ViewFrame {
  return {
    ribbons: parts.map(([part, surface], i) => ({
      id: `${i}`,
      shape: { key: part.key, parts: [part] },
      surfaces: { 0: { ...PLAIN_SURFACE, ...surface } },
    })),
    materials: new Map(),
    scene: {
      camera,
      lights: [],
      backdrop: { type: 'colour', colour: '#000000' },
      ground: [],
      air: hazy
        ? [{ type: 'haze', colour: '#FFFFFF', extinction: 0.1, height: 0, ground: 0, forward: 0, reach: 5 }]
        : [],
      picture: [],
    },
    aspect: 1,
    files: [],
    mode: 'shaded',
  };
}
const glow = { emissiveColor: '#FFFFFF', emissiveStrength: 2 };

describe('light of surfaces in lit air', () => {
  const lightsIn = (scene: Scene) => scene.children as PointLight[];
  it('is that of their area, from points of them that are others in every sub-frame', () => {
    const scene = new Scene();
    const glows = new AirGlows(scene, new Air());
    const places = new Set<string>();
    for (let n = 0; n < 8; n++) {
      glows.update(frameOf([[square(3), glow]]), n);
      const lights = lightsIn(scene);
      // Four square metres of a radiance of 2, a quarter of it to every side.
      const all = lights.reduce((sum, l) => sum + l.intensity * l.color.r, 0);
      expect(all).toBeCloseTo((4 * 2) / 4, 6);
      for (const { position, layers } of lights) {
        expect(position.y).toBe(3);
        expect(Math.max(Math.abs(position.x), Math.abs(position.z))).toBeLessThanOrEqual(1);
        expect(layers.mask).toBe(1 << AIR_LAYER);
        places.add(`${position.x},${position.z}`);
      }
    }
    expect(places.size).toBeGreaterThan(1);
  });
  it('of several is as much as of each, over the sub-frames', () => {
    const scene = new Scene();
    const glows = new AirGlows(scene, new Air());
    const frame = frameOf([
      [square(1), glow],
      [square(2), { ...glow, emissiveStrength: 6 }],
      [square(3), {}],
    ]);
    const sums = new Map<number, number>();
    for (let n = 0; n < 16; n++) {
      glows.update(frame, n);
      for (const l of lightsIn(scene))
        sums.set(l.position.y, (sums.get(l.position.y) ?? 0) + (l.intensity * l.color.r) / 16);
    }
    expect(sums.get(1)).toBeCloseTo(2, 6);
    expect(sums.get(2)).toBeCloseTo(6, 6);
    expect(sums.get(3)).toBeUndefined();
  });
  it('is not there where the air is clear, nothing glows, or it has gone', () => {
    const scene = new Scene();
    const glows = new AirGlows(scene, new Air());
    glows.update(frameOf([[square(0), glow]], false), 0);
    expect(scene.children).toHaveLength(0);
    glows.update(frameOf([[square(0), {}]]), 0);
    expect(scene.children).toHaveLength(0);
    glows.update(frameOf([[square(0), glow]]), 0);
    expect(scene.children.length).toBeGreaterThan(0);
    glows.update(frameOf([[square(0), {}]]), 1);
    expect(scene.children).toHaveLength(0);
    glows.dispose();
  });
});
