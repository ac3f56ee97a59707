import { describe, expect, it } from 'vitest';
import type { ChannelPattern } from '../../finish/surface';
import { patternedAt, type PatternAt } from '../../pattern/pattern-at';
import type { GroundAt } from '../../scene/kind';
import type { Mesh } from '../../shape/mesh';
import { ball, meanOf, pictureOf, settings, square } from '../fixture';
import { Tracer, bouncesOf, type TraceSettings } from '../paths/tracer';
import { SUMS } from '../paths/tile-result';

const clock = { frame: 3, frames: 24 };
const layer = (kind: string, values: object, to: PatternAt['to'], more: Partial<PatternAt> = {}): PatternAt => ({
  kind,
  values: values as PatternAt['values'],
  clock,
  how: 'over',
  amount: 1,
  round: false,
  times: 1,
  shift: 0,
  to,
  ...more,
});
const along = (axis: string, low: number, high: number) =>
  layer(
    'bands',
    {
      as: 'stripes',
      space: 'form',
      axis,
      width: 2,
      share: 50,
      soft: 100,
      along: 0,
      push: 0,
      pushScale: 1,
      pushRate: 0,
      pushSeed: 0,
    },
    { type: 'number', low, high },
  );
const size: TraceSettings = { ...settings, width: 16, height: 16, bounces: bouncesOf(1) };

describe('patterns in true light', () => {
  it('are what they are by the plain formula, at every place that a ray meets', () => {
    const layers = [along('x', 0.1, 0.9)];
    const patterns: ChannelPattern[] = [{ channel: 'emissiveStrength', layers }];
    const surface = { emissiveColor: '#FFFFFF', emissiveStrength: 1, baseColor: '#000000', specular: 0, patterns };
    const picture = pictureOf([{ mesh: square(3), surface }], [], { parallel: 4 });
    const tracer = new Tracer();
    tracer.load(picture, size);
    const sums = tracer.samples({ x: 0, y: 0, width: 16, height: 16 }, 0, 64);
    for (let x = 0; x < 16; x++) {
      // The mean over a pixel, which is a quarter of a metre wide.
      let sum = 0;
      for (let i = 0; i < 20; i++) {
        const place: [number, number, number] = [(x + (i + 0.5) / 20) / 4 - 2, 0, 0];
        const hit = {
          form: place,
          room: place,
          uv: [0, 0] as const,
          facing: 1,
          depth: 4,
          occlusion: 0,
          copy: { order: 0, id: 0, at: [0, 0, 0] as const },
        };
        sum += patternedAt([1], layers, hit)[0] / 20;
      }
      expect(sums[SUMS * (16 * 8 + x)] / 64).toBeCloseTo(sum, 2);
    }
  });
  it('raise a surface, so that it is lit as one that leans', () => {
    // One metre in four, from left to right: the normal leans by atan ¼.
    const slope = layer('along', { by: 'form', axis: 'x', from: -2, to: 2 }, { type: 'number', low: 0, high: 1 });
    const patterns: ChannelPattern[] = [{ channel: 'bump', layers: [slope] }];
    const sun = {
      type: 'sun',
      irradiance: Math.PI,
      from: [Math.sin(0.5), 0, Math.cos(0.5)],
      angle: 0,
      colour: [1, 1, 1],
      shadow: false,
    } as const;
    const seen = (surface: object) =>
      meanOf(
        pictureOf([{ mesh: square(1.9), surface: { roughness: 1, specular: 0, ...surface } }], [sun as never], {
          parallel: 2,
        }),
        16,
      )[0];
    const lean = Math.atan(0.25);
    expect(seen({})).toBeCloseTo(Math.cos(0.5), 3);
    expect(seen({ patterns, features: ['bump'] })).toBeCloseTo(Math.cos(0.5 + lean), 2);
  });
});

describe('a floor that only catches shadow', () => {
  const floor: GroundAt = {
    type: 'catcher',
    height: 0,
    strength: 0.6,
    colour: '#000000',
    reach: 100,
    mirror: 0,
    rough: 0,
  };
  const lifted = (mesh: Mesh, up: number): Mesh => ({
    ...mesh,
    positions: mesh.positions.map((p, i) => (i % 3 === 1 ? p + up : p)),
  });
  const sun = { type: 'sun', irradiance: 3, from: [0, 1, 0], angle: 0, colour: [1, 1, 1], shadow: true } as const;
  const from = (view: object, mirror: number, shapes: readonly { mesh: Mesh; surface?: object }[]) => {
    const picture = pictureOf(shapes, [sun as never], { focalLength: 4000, ...view });
    return meanOf({ ...picture, scene: { ...picture.scene, ground: [{ ...floor, mirror }] } }, 256);
  };
  it('covers as much as it is dark: nothing in the open, and its strength where no light comes', () => {
    const shapes = [{ mesh: lifted(ball(0.5), 1) }];
    expect(from({ position: [4, 1, 6], target: [4, 0, 0] }, 0, shapes)[3]).toBe(0);
    const under = from({ position: [0, 0.3, 6], target: [0, 0, 0], focalLength: 40_000 }, 0, shapes);
    expect(under[3]).toBeCloseTo(0.6, 1.5);
    expect(under[0]).toBe(0);
  });
  it('mirrors what stands on it by its share, and nothing where nothing stands', () => {
    const shining = { emissiveColor: '#FFFFFF', emissiveStrength: 0.5, baseColor: '#000000', specular: 0 };
    const wall = [{ mesh: lifted(square(4, -1), 4.2), surface: shining }];
    // Down on the floor before a wall: a quarter of what is seen is the wall.
    const seen = from({ position: [0, 2, 3], target: [0, 0, 1] }, 0.25, wall);
    expect(seen[0]).toBeCloseTo(0.25 * 0.5, 1.7);
    expect(seen[3]).toBeCloseTo(0.25, 1.5);
    expect(from({ position: [0, 2, -9], target: [0, 0, -12] }, 0.25, wall)[3]).toBe(0);
  });
});
