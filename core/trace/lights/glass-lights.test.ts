import { describe, expect, it } from 'vitest';
import type { Surface } from '../../finish/surface';
import type { LightAt } from '../../scene/kind';
import { ball, pictureOf, settings, square, white, withSky } from '../fixture';
import { bouncesOf, Tracer } from '../paths/tracer';
import { COUNT, SUMS } from '../paths/tile-result';
import { AT_LENGTH } from '../../fixtures/effort';

const lamp = { colour: [1, 1, 1] as const, shadow: true };
const area: LightAt = {
  type: 'area',
  radiance: 30,
  at: [1.5, 1.5, 1],
  target: [0, 0, 0],
  width: 0.5,
  height: 0.5,
  turn: 0,
  seen: false,
  ...lamp,
};
const bulb: LightAt = { type: 'ball', intensity: 6, at: [-1.2, -0.6, -1.5], radius: 0.2, ...lamp };
const sun = (angle: number): LightAt => ({ type: 'sun', irradiance: 3, from: [0.48, 0.6, 0.64], angle, ...lamp });

const SIDE = 12;
const size = { ...settings, width: SIDE, height: SIDE, bounces: bouncesOf(6) };

/** A ball of glass before a wall. */
function scene(glass: Partial<Surface>, lights: readonly LightAt[]) {
  const shapes = [
    { mesh: ball(0.8, 48), surface: { specular: 0, transmission: 1, thickness: 1, ior: 1.5, ...glass } },
    { mesh: square(3, -2), surface: { roughness: 1, specular: 0 } },
  ];
  return withSky(pictureOf(shapes, lights, { focalLength: 60 }));
}

/** Mean brightness of every pixel. */
function traced(picture: ReturnType<typeof scene>, samples: number, how: 0 | 1 | 2 = 0, grain = 0): Float64Array {
  const tracer = new Tracer();
  tracer.load(picture, { ...size, seed: grain });
  tracer.setStrategies(how);
  const sums = tracer.samples({ x: 0, y: 0, width: SIDE, height: SIDE }, 0, samples);
  tracer.setStrategies(0);
  return Float64Array.from({ length: SIDE * SIDE }, (_, i) => sums[SUMS * i + 1] / sums[SUMS * i + COUNT]);
}
const mean = (values: Float64Array) => values.reduce((a, b) => a + b, 0) / values.length;

// Many samples: the same agreement is tested in short, for other surfaces, in ways.test.
describe.runIf(AT_LENGTH)('lamps that are asked for light in rough glass', () => {
  it.each([
    ['frosted', { roughness: 0.5 }],
    ['brushed crystal', { roughness: 0.35, ior: 2.1, anisotropy: 0.6 }],
    ['in a film', { roughness: 0.45, iridescence: 1, iridescenceIor: 1.4, iridescenceThickness: 380 }],
    ['coloured, half of it', { roughness: 0.4, transmission: 0.5, baseColor: '#40A060', specular: 1 }],
    ['as rough as can be', { roughness: 1 }],
    ['a thin wall', { roughness: 0.5, thickness: 0 }],
  ] as const)('come to the mean that chance comes to: glass %s', (_, glass) => {
    const picture = scene(glass, [area, bulb, { ...white, strength: 0.3 } as LightAt]);
    const both = mean(traced(picture, 2048));
    expect(Math.abs(mean(traced(picture, 2048, 1)) / both - 1)).toBeLessThan(0.01);
    expect(Math.abs(mean(traced(picture, 4096, 2)) / both - 1)).toBeLessThan(0.015);
  });

  it('leave less than a third of the noise of chance', () => {
    const picture = scene({ roughness: 0.5 }, [area]);
    const right = traced(picture, 8192, 0, 9);
    const error = (how: 0 | 2) => {
      const values = traced(picture, 32, how);
      return Math.sqrt(mean(values.map((x, i) => (x - right[i]) ** 2)));
    };
    expect(error(0)).toBeLessThan(error(2) / 3);
  });

  it('show a sun that is a point as one that is a small disc', () => {
    const [point, disc] = [0, 1].map((angle) => traced(scene({ roughness: 0.4 }, [sun(angle)]), 1024));
    expect(Math.abs(mean(point) / mean(disc) - 1)).toBeLessThan(0.01);
    const brightest = point.indexOf(Math.max(...point));
    expect(Math.abs(disc[brightest] / point[brightest] - 1)).toBeLessThan(0.05);
  });
});
