import { filmColour } from '@maypole/core/finish/film';
import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import { RAMP } from '@maypole/core/pattern/ramp';
import type { AirAt, CameraAt, GroundAt, LightAt } from '@maypole/core/scene/kind';
import type { Checked } from './checked';
import type { DrawablePart, ViewFrame } from '../stage/frame';
import { Stage } from '../stage/stage';

/** Width and height of the drawn picture. */
const SIZE = 32;
/** Sub-frames averaged. */
const SUBFRAMES = 32;
/** Metres from the camera to the patch, and half its width. */
const [DISTANCE, HALF] = [4, 20];

type Rgb3 = readonly [number, number, number];

interface Case {
  readonly name: string;
  readonly surface?: Partial<Surface>;
  readonly lights: readonly LightAt[];
  readonly air?: readonly AirAt[];
  readonly ground?: readonly GroundAt[];
  /** Drawn in place of the patch. */
  readonly part?: DrawablePart;
  /** Pixels whose sum is tested in place of the middle one. */
  readonly pixels?: readonly (readonly [number, number])[];
  /** Exact radiance of the middle of the patch. */
  readonly exact: Rgb3;
  /**
   * Tolerance, relative to the brightest channel; under the square the formula ignores the slight specular reflection
   * of matt surfaces.
   */
  readonly limit: number;
}

const grey = (x: number): Rgb3 => [x, x, x];

/** An environment of uniform radiance. */
const furnace: LightAt = {
  type: 'gradient',
  ramp: new Float32Array(3 * RAMP).fill(1),
  round: false,
  strength: 1,
  turn: 0,
};

/** A square above a patch, parallel to it. */
const [UP, SQUARE] = [1.5, 1.2];

/**
 * Form factor of a point below the centre of a parallel square: Lambert's sum over its four edges (J. H. Lambert,
 * Photometria, 1760; the form factor of a parallel rectangle, common practice).
 */
function formFactor(half: number, height: number): number {
  const a = half / height;
  const root = Math.sqrt(1 + a * a);
  // Four quarters, each (1/2π) · 2 · a/√(1+a²) · atan(a/√(1+a²)).
  return (4 / (2 * Math.PI)) * 2 * (a / root) * Math.atan(a / root);
}

/** Reflectance at normal incidence for an index of refraction of 1.5. */
const F0 = 0.04;

/**
 * BRDF of fully rough white at normal view, over π: Lambertian below GGX with height-correlated masking and shadowing
 * (B. Walter et al., “Microfacet Models for Refraction”, 2007; E. Heitz, 2014), whose distribution is uniform at full
 * roughness.
 *
 * @param cosine of the angle of incidence
 */
function mattShare(cosine: number): number {
  const half = Math.sqrt((1 + cosine) / 2);
  const mirrored = F0 + (1 - F0) * (1 - half) ** 5;
  const seen = 0.5 / (cosine + 1);
  return 1 - F0 + mirrored * seen;
}

const lamp = { colour: [1, 1, 1] as const, shadow: false };
const air = { colour: '#000000', height: 0, ground: 0, extinction: 0.3 } as const;
const metal = (roughness: number) => ({ metalness: 1, roughness, baseColor: '#FFFFFF' });
const film = (thickness: number): Case => ({
  name: `Film of ${thickness} nm, by Airy’s sum`,
  surface: {
    baseColor: '#000000',
    roughness: 0.05,
    iridescence: 1,
    iridescenceIor: 1.6,
    iridescenceThickness: thickness,
    features: ['film'],
  },
  lights: [furnace],
  exact: filmColour(1.6, 1.5, thickness, 1),
  limit: 0.1,
});

/** A large square across the middle, facing the camera; it may start at a given height. */
function square(key: string, from: number): DrawablePart {
  return {
    key,
    topology: {
      key,
      triangles: Uint32Array.of(0, 1, 2, 0, 2, 3),
      edges: new Uint32Array(0),
      lines: new Uint32Array(0),
      groups: [{ slot: 0, start: 0, count: 6 }],
      closed: false,
    },
    positions: Float32Array.of(-HALF, from, 0, HALF, from, 0, HALF, HALF, 0, -HALF, HALF, 0),
    normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1),
  };
}

const patch = square('patch', -HALF);

/** Distance below the middle of the floor on which a wall stands. */
const FLOOR = 0.05;
const wall = square('wall', -FLOOR);

/** Lamps straight above the patch: what it reflects of them in clear air, and how far away they are, in metres. */
const overhead: Record<string, { light: LightAt; exact: number; metres: number; limit: number }> = {
  'a lamp': {
    light: { type: 'ball', intensity: 2, at: [0, 0, 2], radius: 0, ...lamp },
    exact: (2 / 4 / Math.PI) * mattShare(1),
    metres: 2,
    limit: 0.01,
  },
  'a spot': {
    light: { type: 'spot', intensity: 2, at: [0, 0, 2], target: [0, 0, 0], cone: 60, soft: 0.2, radius: 0, ...lamp },
    exact: (2 / 4 / Math.PI) * mattShare(1),
    metres: 2,
    limit: 0.01,
  },
  'a square light': {
    light: {
      type: 'area',
      radiance: 1,
      at: [0, 0, UP],
      target: [0, 0, 0],
      width: 0.1,
      height: 0.1,
      turn: 0,
      seen: false,
      ...lamp,
    },
    exact: formFactor(0.05, UP),
    metres: UP,
    limit: 0.02,
  },
};

/** Kinds of air, and their optical depth from a lamp over the patch to the camera. */
const thickAirs: Record<string, { air: AirAt; depth: (metres: number) => number }> = {
  // What begins later is for looking alone.
  fog: { air: { type: 'fog', begins: 3, ...air }, depth: (metres) => 0.3 * (metres + DISTANCE - 3) },
  // Black dust: what it scatters is another case.
  'lit air': {
    air: { type: 'haze', forward: 0, reach: 1000, ...air },
    depth: (metres) => 0.3 * (metres + DISTANCE),
  },
};

/** A lamp beside the middle ray. */
const BESIDE = [1.5, 0, 2] as const;

/**
 * Radiance of the middle ray by single isotropic scattering of white dust that a lamp beside the ray lights: ∫ σ e^{−σt}
 * · I e^{−σd}/d² · 1/4π dt (S. Chandrasekhar, Radiative Transfer, 1950), by Simpson's rule.
 */
function litDust(intensity: number): number {
  const at = (t: number) => {
    const d = Math.hypot(BESIDE[0], BESIDE[2] - (DISTANCE - t));
    return (air.extinction * Math.exp(-air.extinction * (t + d)) * intensity) / (d * d) / (4 * Math.PI);
  };
  const [steps, h] = [400, DISTANCE / 400];
  let sum = at(0) + at(DISTANCE);
  for (let i = 1; i < steps; i++) sum += (i % 2 ? 4 : 2) * at(i * h);
  return (sum * h) / 3;
}

const cases: readonly Case[] = [
  { name: 'White in a white room', lights: [furnace], exact: grey(1), limit: 0.01 },
  ...[0.1, 0.4, 0.7, 1].map((r) => ({
    name: `Metal in a white room, roughness ${100 * r} %`,
    surface: metal(r),
    lights: [furnace],
    exact: grey(1),
    limit: 0.01,
  })),
  {
    name: 'Mirror of glass seen straight on, by Fresnel',
    surface: { baseColor: '#000000', roughness: 0.05 },
    lights: [furnace],
    exact: grey(0.04),
    limit: 0.02,
  },
  ...(['plain', 'with a cloth of nothing'] as const).map((kind) => ({
    name: `Half as much of it, by KHR_materials_specular, ${kind}`,
    surface: {
      baseColor: '#000000',
      roughness: 0.05,
      specular: 0.5,
      ...(kind === 'plain' ? {} : { features: ['cloth' as const] }),
    },
    lights: [furnace],
    exact: grey(F0 / 2),
    limit: 0.02,
  })),
  {
    name: 'Matt under a sun',
    // 60° off: half of it reaches the patch.
    lights: [{ type: 'sun', irradiance: Math.PI, from: [Math.sqrt(0.75), 0, 0.5], angle: 0, ...lamp }],
    exact: grey(0.5 * mattShare(0.5)),
    limit: 0.005,
  },
  {
    name: 'Matt under a square light, by Lambert',
    lights: [
      {
        type: 'area',
        radiance: 1,
        at: [0, 0, UP],
        target: [0, 0, 0],
        width: SQUARE,
        height: SQUARE,
        turn: 0,
        seen: false,
        ...lamp,
      },
    ],
    exact: grey(formFactor(SQUARE / 2, UP)),
    limit: 0.02,
  },
  {
    name: 'Matt under a lamp, by the square of its distance',
    lights: [{ type: 'ball', intensity: 2, at: [0, 0, 2], radius: 0, ...lamp }],
    exact: grey((2 / 4 / Math.PI) * mattShare(1)),
    limit: 0.005,
  },
  {
    name: 'Fog, by Beer and Lambert',
    lights: [furnace],
    air: [{ type: 'fog', begins: 0, ...air }],
    exact: grey(Math.exp(-0.3 * DISTANCE)),
    limit: 0.01,
  },
  ...Object.entries(thickAirs).flatMap(([through, { air, depth }]) =>
    Object.entries(overhead).map(([under, { light, exact, metres, limit }]): Case => ({
      name: `Matt under ${under} through ${through}, dimmed on both ways`,
      lights: [light],
      air: [air],
      exact: grey(exact * Math.exp(-depth(metres))),
      limit,
    })),
  ),
  ...(['ball', 'spot'] as const).map((type): Case => ({
    name: `Dust that a ${type} lights, dimmed on both ways, by its integral`,
    surface: { baseColor: '#000000', specular: 0 },
    lights: [
      type === 'ball'
        ? { type, intensity: 20, at: BESIDE, radius: 0, ...lamp }
        : { type, intensity: 20, at: BESIDE, target: [0, 0, BESIDE[2]], cone: 170, soft: 0, radius: 0, ...lamp },
    ],
    air: [{ type: 'haze', forward: 0, reach: 1000, ...air, colour: '#FFFFFF' }],
    exact: grey(litDust(20)),
    limit: 0.02,
  })),
  {
    name: 'Lit air before a black wall',
    surface: { baseColor: '#000000' },
    lights: [furnace],
    air: [{ type: 'haze', forward: 0, reach: 1000, ...air, colour: '#FFFFFF' }],
    exact: grey(1 - Math.exp(-0.3 * DISTANCE)),
    limit: 0.02,
  },
  {
    name: 'A wall that shines, and half of it in the floor',
    surface: { baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 1, features: ['glow'] },
    lights: [],
    ground: [{ type: 'catcher', height: -FLOOR, strength: 0, colour: '#000000', reach: 20, mirror: 0.5, rough: 0 }],
    part: wall,
    // Above the middle is the wall, below it the floor, in either order of rows.
    pixels: [
      [SIZE / 2, 3],
      [SIZE / 2, SIZE - 4],
    ],
    exact: grey(1.5),
    limit: 0.03,
  },
  film(150),
  film(250),
  film(400),
];

const camera: CameraAt = {
  position: [0, 0, DISTANCE],
  target: [0, 0, 0],
  focalLength: 400,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
  exposure: 1,
  lensRadius: 0,
  blades: 0,
  focusDistance: DISTANCE,
  shutter: 0,
};

function frameOf({ surface, lights, air: airs = [], ground = [], part = patch }: Case): ViewFrame {
  const plain: Surface = { ...PLAIN_SURFACE, roughness: 1, ...surface };
  return {
    ribbons: [{ id: 'patch', shape: { key: part.key, parts: [part] }, surfaces: { 0: plain } }],
    materials: new Map(),
    scene: { camera, lights, backdrop: { type: 'colour', colour: '#000000' }, ground, air: airs, picture: [] },
    aspect: 1,
    files: [],
    mode: 'shaded',
  };
}

/** Draws patches with known radiance by the renderer of all pictures, one after the other. */
export async function* checkLight(): AsyncGenerator<Checked> {
  const stage = await Stage.create(document.createElement('canvas'));
  stage.setSize(SIZE, SIZE);
  try {
    for (const one of cases) {
      const frame = frameOf(one);
      for (let n = 0; n < SUBFRAMES; n++) stage.draw(frame, n, SUBFRAMES, false);
      const drawn = [0, 0, 0];
      for (const [x, y] of one.pixels ?? [[SIZE / 2, SIZE / 2]])
        (await stage.lightAt(x, y)).forEach((c, k) => (drawn[k] += c));
      const most = Math.max(...one.exact);
      const difference = Math.max(...one.exact.map((x, k) => Math.abs(x - drawn[k]))) / most;
      yield { name: one.name, difference, limit: one.limit, share: difference <= one.limit ? 0 : 1 };
    }
  } finally {
    stage.dispose();
  }
}
