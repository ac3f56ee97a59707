import { describe, expect, it } from 'vitest';
import type { PictureAt } from '../../evaluate/picture-at';
import { PLAIN_SURFACE } from '../../finish/surface';
import { provideAsset } from '../../assets/store';
import { FRAME_SETTINGS } from '../paths/frame-settings';
import type { LightAt } from '../../scene/kind';
import { meshOf } from '../../shape/builder';
import { uniformConnectivity, type Mesh } from '../../shape/mesh';
import { emissiveTrianglesOf } from '../scene/emissive';
import type { Instance } from '../scene/instances';
import { ball, pictureOf, settings, square, white, withSky } from '../fixture';
import { Tracer, type TraceSettings } from '../paths/tracer';
import { COUNT, SUMS } from '../paths/tile-result';

/** Ways to find light: both weighed, by asking lamps alone, by directions alone. */
const [BOTH, LAMPS, DIRECTIONS] = [0, 1, 2] as const;
const chalk = { roughness: 1, specular: 0 };
const lamp = { colour: [1, 1, 1] as const, shadow: true };

/** Mean red light of a small picture in one way, and its standard error. */
function found(
  picture: PictureAt<Mesh>,
  how: 0 | 1 | 2,
  samples = 1024,
  more: Partial<TraceSettings> = {},
): { mean: number; error: number } {
  const runs = [1, 2, 3, 4].map((grain) => {
    const tracer = new Tracer();
    const all = { ...settings, width: 4, height: 4, ...more, seed: grain };
    tracer.load(picture, all);
    tracer.setStrategies(how);
    const sums = tracer.samples({ x: 0, y: 0, width: 4, height: 4 }, 0, samples);
    let sum = 0;
    for (let i = 0; i < sums.length; i += SUMS) sum += sums[i] + sums[i + COUNT + 1];
    return sum / (16 * samples);
  });
  const mean = runs.reduce((a, b) => a + b) / 4;
  return { mean, error: Math.sqrt(runs.reduce((s, x) => s + (x - mean) ** 2, 0) / 12) };
}

/** All three ways come to one mean, within four standard errors and a thousandth; gives it. */
function agree(picture: PictureAt<Mesh>, samples = 1024, more: Partial<TraceSettings> = {}): number {
  const [both, lamps, directions] = ([BOTH, LAMPS, DIRECTIONS] as const).map((how) =>
    found(picture, how, samples, more),
  );
  for (const [name, one] of [
    ['lamps alone', lamps],
    ['directions alone', directions],
  ] as const)
    expect(Math.abs(one.mean - both.mean), `${name}: ${one.mean} and ${both.mean}`).toBeLessThan(
      4 * Math.hypot(one.error, both.error) + 0.001 * both.mean,
    );
  return both.mean;
}

/** A floor of chalk at y = 0, seen straight from above at x, its scale beside. */
const floor = (half: number): Mesh =>
  meshOf(
    uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
    Float32Array.of(-half, 0, half, half, 0, half, half, 0, -half, -half, 0, -half),
  );
/** A disc at a height that looks down. */
function disc(radius: number, height: number, sides = 96): Mesh {
  const points = [0, height, 0];
  for (let i = 0; i < sides; i++) {
    const a = (2 * Math.PI * i) / sides;
    points.push(radius * Math.cos(a), height, radius * Math.sin(a));
  }
  const corners = Array.from({ length: sides }, (_, i) => [0, 1 + i, 1 + ((i + 1) % sides)]).flat();
  return meshOf(uniformConnectivity(sides + 1, 3, Uint32Array.from(corners)), Float32Array.from(points));
}
/** Looks at a place of the floor, along the floor's normal, a very small part of it. */
const seenAt = (x: number, scale: number, height = 20) => ({
  position: [x * scale, height * scale, 0] as const,
  target: [x * scale, 0, 0] as const,
  focalLength: 1e5,
});
const glowing = { baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 1 };
const whiteness = { ...chalk, baseColor: '#FFFFFF' };

/**
 * Configuration factor from a small area to a disc that it faces, `x` beside the axis: H and R over the distance from the
 * axis (J. R. Howell, A Catalog of Radiation Heat Transfer Configuration Factors, B-13).
 */
function toDisc(radius: number, height: number, x: number): number {
  const [h, r] = [height / x, radius / x];
  const z = 1 + h * h + r * r;
  return (1 - (1 + h * h - r * r) / Math.sqrt(z * z - 4 * r * r)) / 2;
}

describe('light of a disc that glows', () => {
  for (const scale of [0.001, 0.1, 1, 100, 10_000])
    it.each([1.1, 1.6, 3])(`reaches a floor as the catalogue says, at a scale of ${scale} m, at %f radii`, (radii) => {
      const [radius, height] = [0.3 * scale, 0.3 * scale];
      const picture = pictureOf(
        [
          { mesh: floor(4 * scale), surface: whiteness },
          { mesh: disc(radius, height), surface: { ...glowing, faces: 'both' } as object },
        ],
        [],
        // From beside, since the disc stands between.
        {
          position: [0.3 * radii * scale + 15 * scale, 2 * scale, 0],
          target: [0.3 * radii * scale, 0, 0],
          focalLength: 1e5,
        },
      );
      const mean = agree(picture, 256, { bounces: { diffuse: 1, glossy: 1, transmission: 1, air: 1 } });
      // A polygon of 96 sides has 0.07 % less area.
      expect(mean / toDisc(radius, height, 0.3 * radii * scale)).toBeCloseTo(1, 1.8);
    });

  it('a ball loses nothing to a camera that is far away', () => {
    const light = (distance: number) =>
      found(
        pictureOf(
          [
            { mesh: floor(4), surface: whiteness },
            { mesh: raised(ball(0.3, 48), 0.6), surface: glowing },
          ],
          [],
          seenAt(0.7, 1, distance),
        ),
        LAMPS,
        1024,
      ).mean;
    const near = light(2);
    for (const distance of [20, 200]) expect(light(distance) / near).toBeCloseTo(1, 1.8);
    // A ball seen from a place: (r/d)² · cosine.
    const d = Math.hypot(0.7, 0.6);
    expect(near / ((0.3 / d) ** 2 * (0.6 / d))).toBeCloseTo(1, 1.7);
  });
});

function raised(mesh: Mesh, by: number): Mesh {
  const positions = mesh.positions.map((x, i) => (i % 3 === 1 ? x + by : x));
  return { ...mesh, positions };
}

const over = (y: number, half = 3): Mesh =>
  meshOf(
    uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
    Float32Array.of(-half, y, half, half, y, half, half, y, -half, -half, y, -half),
  );
const area = (at: readonly number[], more: object = {}) =>
  ({
    type: 'area',
    radiance: 3,
    at,
    target: [0, 0, 0],
    width: 1,
    height: 1,
    turn: 0,
    seen: false,
    ...lamp,
    ...more,
  }) as unknown as LightAt;
const round = (at: readonly number[], radius = 0.4) =>
  ({ type: 'ball', intensity: 1, at, radius, ...lamp }) as unknown as LightAt;
const sun = (angle: number, from: readonly number[] = [0.6, 0.8, 0]) =>
  ({ type: 'sun', irradiance: 1, from, angle, ...lamp }) as unknown as LightAt;
/** From beside, so that what lies over the floor is not looked through. */
const beside = { position: [9, 0.4, 0] as const, target: [0, 0, 0] as const, focalLength: 3e4 };

describe('all ways to find light come to one mean', () => {
  const veil = { ...chalk, alpha: 0.5, baseColor: '#000000' };
  const pane = { transmission: 1, thickness: 0, ior: 1.5, roughness: 0, baseColor: '#FFFFFF' };
  const lights: readonly (readonly [string, readonly LightAt[]])[] = [
    ['an area', [area([0.4, 1.2, 0])]],
    ['a ball', [round([0.3, 1.4, 0])]],
    ['a sun', [sun(8)]],
    ['the sky', [white]],
    ['all of them', [area([0.4, 1.2, 0]), round([-1, 1.4, 0.3]), sun(8), white]],
  ];
  for (const [name, list] of lights) {
    const picture = (more: Parameters<typeof pictureOf>[0]) =>
      withSky(pictureOf([{ mesh: floor(9), surface: whiteness }, ...more], list, beside));
    it(`of ${name}, on chalk`, () => void agree(picture([])));
    it(`of ${name}, behind a veil`, () => {
      const open = found(picture([]), BOTH).mean;
      // Half of it is kept away, or, of what comes from the side under the veil, less.
      expect(agree(picture([{ mesh: over(0.5, 30), surface: veil }])) / open).toBeCloseTo(0.5, 1.3);
    });
    it(`of ${name}, behind clear thin glass`, () => void agree(picture([{ mesh: over(0.5, 30), surface: pane }])));
    it(`of ${name}, on rough metal`, () =>
      void agree(
        withSky(
          pictureOf(
            [{ mesh: floor(9), surface: { metalness: 1, roughness: 0.4, baseColor: '#FFFFFF' } }],
            list,
            beside,
          ),
        ),
      ));
  }
  it('of what glows behind a veil and behind glass', () => {
    for (const between of [veil, pane])
      agree(
        pictureOf(
          [
            { mesh: floor(9), surface: whiteness },
            { mesh: over(0.5, 30), surface: between },
            { mesh: disc(0.4, 1), surface: glowing },
          ],
          [],
          beside,
        ),
      );
  });
  it('of lamps in fog and in lit air, which both take of it', () => {
    const fog = { type: 'fog', colour: '#000000', extinction: 0.4, begins: 0, height: 0, ground: 0 };
    const haze = { type: 'haze', colour: '#000000', extinction: 0.3, forward: 0, height: 0, ground: 0, reach: 3 };
    for (const air of [fog, haze])
      for (const list of [[area([0.4, 1.2, 0])], [round([0.3, 1.4, 0])]]) {
        const plain = pictureOf([{ mesh: floor(9), surface: whiteness }], list, beside);
        agree({ ...plain, scene: { ...plain.scene, air: [air] } } as unknown as PictureAt<Mesh>);
      }
  });
});

describe('an area light', () => {
  it.each([
    [0.1, 1],
    [2, 0.87],
    [6, 0.44],
  ])('of %f m square lights white paper three metres in front of it as its help says', (side, share) => {
    // Configuration factor from a small area to a rectangle that it faces, over its middle (Howell, B-4, four times).
    const x = side / 6;
    const factor = (4 / Math.PI) * (x / Math.hypot(1, x)) * Math.atan(x / Math.hypot(1, x));
    const light = area([0, 3, 0], { width: side, height: side, radiance: (Math.PI * 9) / side ** 2 });
    const mean = found(pictureOf([{ mesh: floor(9), surface: whiteness }], [light], beside), LAMPS).mean;
    expect(mean / ((9 * factor * Math.PI) / side ** 2)).toBeCloseTo(1, 1.9);
    expect(mean).toBeCloseTo(share, 1.9);
  });
});

describe('a lamp that is seen', () => {
  it.each([
    ['fog', { type: 'fog', colour: '#000000', extinction: 1, begins: 0, height: 0, ground: 0 }, 5],
    ['lit air', { type: 'haze', colour: '#000000', extinction: 1, forward: 0, height: 0, ground: 0, reach: 2.5 }, 2.5],
  ])('through %s is dimmed by it, as a face that glows is', (_, air, metres) => {
    const lit = area([0, 0, 0], { target: [0, 0, 1], seen: true, radiance: 1, width: 2, height: 2 });
    const through = (shapes: Parameters<typeof pictureOf>[0], list: readonly LightAt[]) => {
      const plain = pictureOf(shapes, list, { position: [0, 0, 5], focalLength: 1e4 });
      return found({ ...plain, scene: { ...plain.scene, air: [air] } } as unknown as PictureAt<Mesh>, BOTH, 64).mean;
    };
    const face = through([{ mesh: square(1), surface: glowing }], []);
    expect(face).toBeCloseTo(Math.exp(-metres), 3);
    expect(through([], [lit])).toBeCloseTo(Math.exp(-metres), 3);
  });
});

describe('suns', () => {
  it.each([
    [0.001, 0.03],
    [0.01, 0.05],
    [0.05, 0.07],
    [0.53, 0.1],
    [8, 0.3],
  ])('of %f° bring what they are said to, and are met by chance where they stand', (angle, roughness) => {
    const chalky = pictureOf([{ mesh: floor(9), surface: whiteness }], [sun(angle)], beside);
    // The mean cosine over a cone about a direction is that of the direction, times (1 + cos of half the cone) / 2.
    const brings = (0.8 * (1 + Math.cos((angle * Math.PI) / 360))) / 2 / Math.PI;
    expect(found(chalky, LAMPS, 64).mean / brings).toBeCloseTo(1, 3);
    expect(found(chalky, BOTH, 64).mean / brings).toBeCloseTo(1, 2.5);
    if (angle < 0.01) return;
    const mirror = pictureOf(
      [{ mesh: floor(9), surface: { metalness: 1, roughness, baseColor: '#FFFFFF' } }],
      [sun(angle)],
      { position: [-6, 8, 0], target: [0, 0, 0], focalLength: 1e6 },
    );
    agree(mirror, 4096);
  });
});

/** A picture of light all round that is dark but for a square of pixels, which brings the same however many they are. */
function sunPicture(pixels: number): LightAt {
  const [width, height, side] = [256, 128, Math.sqrt(pixels)];
  const values = new Float32Array(3 * width * height).fill(0.01);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const o = 3 * ((30 + y) * width + 60 + x);
      values.fill(20_000 / pixels, o, o + 3);
    }
  provideAsset(`sun of ${pixels}`, { type: 'light', light: { width, height, values } });
  return { type: 'panorama', file: `sun of ${pixels}`, strength: 1, turn: 0, tilt: 0 } as unknown as LightAt;
}

describe('a sun in a picture of light', () => {
  it.each([1, 9, 25, 100])('of %i pixels is found in all ways, and the usual limit keeps its light', (pixels) => {
    const picture = pictureOf([{ mesh: floor(9), surface: whiteness }], [sunPicture(pixels)], beside);
    const open = agree(picture, 4096);
    expect(found(picture, BOTH, 1024, { fireflyClamp: FRAME_SETTINGS.fireflyClamp }).mean / open).toBeGreaterThan(0.99);
    // Once more between surfaces, where light is limited: in a corner of chalk.
    const wall = meshOf(
      uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
      Float32Array.of(-9, 0, -0.2, 9, 0, -0.2, 9, 9, -0.2, -9, 9, -0.2),
    );
    const corner = pictureOf(
      [
        { mesh: floor(9), surface: whiteness },
        { mesh: wall, surface: { ...whiteness, baseColor: '#BBBBBB' } },
      ],
      [sunPicture(pixels)],
      beside,
    );
    const limited = found(corner, BOTH, 1024, { fireflyClamp: FRAME_SETTINGS.fireflyClamp });
    expect(limited.mean / found(corner, BOTH, 1024).mean).toBeGreaterThan(0.99);
  });
});

describe('a surface that only adds light', () => {
  it('gives back the white sky that it is lit by', () => {
    const picture = pictureOf([{ mesh: square(40), surface: { ...whiteness, additive: true } }], [white]);
    expect(found(picture, BOTH).mean).toBeCloseTo(1, 1.9);
  });
});

describe('what glows in part', () => {
  const lit = (surface: object) =>
    agree(
      pictureOf(
        [
          { mesh: floor(9), surface: whiteness },
          { mesh: disc(0.4, 1), surface: { ...glowing, ...surface } },
        ],
        [],
        beside,
      ),
    );
  it('lights by the part that is there, whether it is a veil or a pattern makes it one', () => {
    const whole = lit({});
    expect(lit({ alpha: 0.25 }) / whole).toBeCloseTo(0.25, 1.9);
    // A pattern of one value everywhere, which is asked for it at each place.
    const pattern = {
      kind: 'bands',
      values: {
        as: 'stripes',
        space: 'form',
        axis: 'x',
        width: 2,
        share: 50,
        soft: 100,
        along: 0,
        push: 0,
        pushScale: 1,
        pushRate: 0,
        pushSeed: 0,
      },
      clock: { frame: 0, frames: 24 },
      how: 'over',
      amount: 1,
      round: false,
      times: 1,
      shift: 0,
      to: { type: 'number', low: 0.25, high: 0.25 },
    };
    expect(lit({ patterns: [{ channel: 'alpha', layers: [pattern] }] }) / whole).toBeCloseTo(0.25, 1.9);
  });

  it('is asked for light however many triangles it has', () => {
    const count = 1_200_000;
    const drawn = {
      positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
      normals: new Float32Array(9),
      triangles: Uint32Array.from({ length: 3 * count }, (_, i) => i % 3),
      kinds: new Uint8Array(count),
    };
    const matrix = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    const standing = { placed: { root: 0, mesh: drawn }, matrix, surface: 0 } as unknown as Instance;
    const glows = emissiveTrianglesOf([standing], () => ({
      0: { ...PLAIN_SURFACE, emissiveColor: '#FFFFFF', emissiveStrength: 2 },
    }));
    expect(glows.count).toBe(count);
    expect(glows.power / (count * 0.5 * 2)).toBeCloseTo(1, 6);
    expect(glows.table[3 * count - 1]).toBe(1);
    expect(glows.centre.map((x) => Math.round(1000 * x))).toEqual([333, 333, 0]);
  });
});
