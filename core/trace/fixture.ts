import type { PictureAt } from '../evaluate/picture-at';
import { randomSource, randomUnitVector } from '../maths/random';
import { PLAIN_SURFACE, type Surface } from '../finish/surface';
import { RAMP } from '../pattern/ramp';
import type { CameraAt, LightAt } from '../scene/kind';
import { meshOf } from '../shape/builder';
import { uniformConnectivity, type Mesh } from '../shape/mesh';
import { bouncesOf, Tracer, type TraceSettings } from './paths/tracer';
import { COUNT, SUMS } from './paths/tile-result';

/** Small pictures for tests of tracing. */
export const white: LightAt = {
  type: 'gradient',
  ramp: new Float32Array(3 * RAMP).fill(1),
  round: false,
  strength: 1,
  turn: 0,
};

/** A sphere of triangles around the origin, visible from inside as well. */
export function ball(radius = 1, rings = 24): Mesh {
  const points: number[] = [];
  const corners: number[] = [];
  const across = 2 * rings;
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < across; j++) {
      const [a, b] = [(Math.PI * i) / rings, (2 * Math.PI * j) / across];
      points.push(radius * Math.sin(a) * Math.cos(b), radius * Math.cos(a), radius * Math.sin(a) * Math.sin(b));
    }
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < across; j++) {
      const [a, b] = [across * i + j, across * i + ((j + 1) % across)];
      if (i > 0) corners.push(a, b, b + across);
      if (i < rings - 1) corners.push(a, b + across, a + across);
    }
  return meshOf(uniformConnectivity(points.length / 3, 3, Uint32Array.from(corners)), Float32Array.from(points));
}

/** A square at z that faces +z. */
export function square(half: number, z = 0): Mesh {
  const [a, b] = [-half, half];
  return meshOf(
    uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
    Float32Array.of(a, a, z, b, a, z, b, b, z, a, b, z),
  );
}

/** A bowl over a square of 2 × 2, of `sides` × `sides` squares of two even triangles each. */
export function bowl(sides: number): Mesh {
  const points: number[] = [];
  const corners: number[] = [];
  for (let i = 0; i <= sides; i++)
    for (let j = 0; j <= sides; j++) {
      const [x, y] = [(2 * j) / sides - 1, (2 * i) / sides - 1];
      points.push(x, y, 0.3 * (x * x + y * y));
      const at = (sides + 1) * i + j;
      if (i < sides && j < sides) corners.push(at, at + 1, at + sides + 2, at, at + sides + 2, at + sides + 1);
    }
  return meshOf(uniformConnectivity(points.length / 3, 3, Uint32Array.from(corners)), Float32Array.from(points));
}

/** Long thin triangles in every direction; some are degenerate, some have a corner that is not finite. */
export function needles(count: number, seed = 3, width = 0.01): Mesh {
  const random = randomSource(seed);
  const points: number[] = [];
  for (let i = 0; i < count; i++) {
    const from = randomUnitVector(random).map((x) => x * random());
    const along = randomUnitVector(random).map((x) => 1.5 * x);
    const across = randomUnitVector(random).map((x) => (i % 40 === 7 ? 0 : width * x));
    points.push(...from, ...from.map((x, k) => x + along[k]), ...from.map((x, k) => x + across[k]));
    if (i % 40 === 11) points[points.length - 2] = NaN;
  }
  const corners = Uint32Array.from({ length: 3 * count }, (_, i) => i);
  return meshOf(uniformConnectivity(3 * count, 3, corners), Float32Array.from(points));
}

export const camera: CameraAt = {
  position: [0, 0, 4],
  target: [0, 0, 0],
  focalLength: 400,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
  exposure: 1,
  lensRadius: 0,
  blades: 0,
  focusDistance: 4,
  shutter: 0,
};

export function pictureOf(
  shapes: readonly { readonly mesh: Mesh; readonly surface?: Partial<Surface> }[],
  lights: readonly LightAt[],
  view: Partial<CameraAt> = {},
): PictureAt<Mesh> {
  const ribbons = shapes.map(({ mesh, surface }, i) => ({
    id: `${i}`,
    shape: mesh,
    surfaces: { 0: { ...PLAIN_SURFACE, ...surface } },
  }));
  return {
    ribbons,
    materials: new Map(ribbons.map((r) => [r.id, r.surfaces])),
    scene: {
      camera: { ...camera, ...view },
      lights,
      backdrop: { type: 'colour', colour: '#000000' },
      ground: [],
      air: [],
      picture: [],
    },
    aspect: 1,
    files: [],
  };
}

/** The same with the environment visible behind everything. */
export function withSky(picture: PictureAt<Mesh>): PictureAt<Mesh> {
  const backdrop = { type: 'round', colour: '#000000', blur: 0, strength: 1 } as const;
  return { ...picture, scene: { ...picture.scene, backdrop } };
}

export const settings: TraceSettings = { width: 8, height: 8, bounces: bouncesOf(16), fireflyClamp: Infinity, seed: 0 };

/** Mean radiance of a picture, added light included: red, green, blue, and coverage. */
export function meanOf(picture: PictureAt<Mesh>, samples: number, more: Partial<TraceSettings> = {}): number[] {
  const tracer = new Tracer();
  const all = { ...settings, ...more };
  tracer.load(picture, all);
  const sums = tracer.samples({ x: 0, y: 0, width: all.width, height: all.height }, 0, samples);
  return [0, 1, 2, 3].map((k) => {
    let sum = 0;
    for (let i = k; i < sums.length; i += SUMS) sum += sums[i] + (k < 3 ? sums[i + COUNT + 1] : 0);
    return sum / (all.width * all.height * samples);
  });
}
