import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import type { PatternAt } from '@maypole/core/pattern/pattern-at';
import type { CameraAt, GroundAt, LightAt } from '@maypole/core/scene/kind';
import { meshOf } from '@maypole/core/shape/builder';
import { uniformConnectivity, type Mesh } from '@maypole/core/shape/mesh';
import { bouncesOf, Tracer } from '@maypole/core/trace/paths/tracer';
import { SUMS } from '@maypole/core/trace/paths/tile-result';
import { SphereGeometry } from 'three';
import type { Checked } from './checked';
import type { DrawablePart, ViewFrame } from '../stage/frame';
import { Stage } from '../stage/stage';

/**
 * Compares quick and true light where quick light is exact: one sphere in each, pixel by pixel, without bounces, which
 * quick light does not have.
 */

const SIZE = 256;
const SUBFRAMES = 8;
const SAMPLES = 8;

const sun: LightAt = {
  type: 'sun',
  irradiance: 3,
  from: [0.48, 0.6, 0.64],
  angle: 0,
  colour: [1, 1, 1],
  shadow: false,
};
const ball: LightAt = { type: 'ball', intensity: 20, at: [2, 2, 2], radius: 0, colour: [1, 0.9, 0.7], shadow: false };

const plain: CameraAt = {
  position: [0, 0, 4],
  target: [0, 0, 0],
  focalLength: 60,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
  exposure: 1,
  lensRadius: 0,
  blades: 0,
  focusDistance: 4,
  shutter: 0,
};

const bands: PatternAt = {
  kind: 'bands',
  values: {
    as: 'rings',
    space: 'form',
    axis: 'z',
    width: 0.5,
    share: 50,
    soft: 80,
    along: 0.2,
    push: 40,
    pushScale: 0.6,
    pushRate: 0,
    pushSeed: 3,
  },
  noise: {
    kind: 'gradient',
    scale: 0.6,
    stretch: [1, 1, 1],
    octaves: 3,
    contrast: 1,
    brightness: 0,
    low: -1,
    high: 1,
    absolute: false,
    invert: false,
    seed: 3,
    rate: 0,
  },
  clock: { frame: 3, frames: 24 },
  how: 'over',
  amount: 1,
  round: false,
  times: 1,
  shift: 0,
  to: { type: 'number', low: 0.15, high: 0.9 },
};
const colours: PatternAt = {
  ...bands,
  to: {
    type: 'colour',
    ramp: Float32Array.from({ length: 768 }, (_, i) => (i % 3 === 0 ? i / 768 : i % 3 === 1 ? 0.3 : 1 - i / 768)),
  },
};

interface Case {
  readonly name: string;
  readonly surface?: Partial<Surface>;
  readonly lights?: readonly LightAt[];
  readonly camera?: Partial<CameraAt>;
  readonly ground?: readonly GroundAt[];
  /**
   * Mean pixel difference relative to the mean brightness. The renderers share light between specular and diffuse by
   * different rules: matt differs by 2.4 % with its specular lobe and by 0.2 % without, so that everything else is
   * compared without one.
   */
  readonly limit: number;
}

const cases: readonly Case[] = [
  { name: 'matt, without a mirror', surface: { roughness: 1, specular: 0 }, limit: 0.01 },
  { name: 'matt', surface: { roughness: 1 }, limit: 0.03 },
  { name: 'plastic under a lamp', surface: { roughness: 0.4, baseColor: '#2E6FA7' }, lights: [ball], limit: 0.04 },
  { name: 'gold', surface: { metalness: 1, roughness: 0.45, baseColor: '#E0B354' }, limit: 0.05 },
  {
    name: 'lacquer',
    surface: { baseColor: '#3B6E4A', clearcoat: 1, clearcoatRoughness: 0.3, features: ['coat'] },
    limit: 0.035,
  },
  {
    name: 'a camera that is shifted and rolled',
    camera: { shift: [0.2, -0.1], roll: 25, focalLength: 45, position: [1, 2, 3.2], target: [0.2, 0.1, 0] },
    surface: { baseColor: '#AA8866', specular: 0 },
    limit: 0.01,
  },
  {
    name: 'parallel rays',
    camera: { parallel: 3, position: [2, 1, 3] },
    surface: { baseColor: '#AA8866', specular: 0 },
    limit: 0.01,
  },
  {
    name: 'a pattern of colours',
    surface: { specular: 0, patterns: [{ channel: 'baseColor', layers: [colours] }] },
    limit: 0.01,
  },
  {
    name: 'a pattern of roughness',
    surface: { metalness: 1, baseColor: '#DDDDDD', patterns: [{ channel: 'roughness', layers: [bands] }] },
    limit: 0.04,
  },
  {
    name: 'a pattern that raises',
    surface: {
      specular: 0,
      features: ['bump'],
      patterns: [{ channel: 'bump', layers: [{ ...bands, to: { type: 'number', low: 0, high: 0.05 } }] }],
    },
    limit: 0.04,
  },
];

export async function* checkTrueLight(): AsyncGenerator<Checked> {
  const geometry = new SphereGeometry(1, 96, 64);
  const mesh = meshOf(
    uniformConnectivity(geometry.getAttribute('position').count, 3, Uint32Array.from(geometry.index!.array)),
    geometry.getAttribute('position').array as Float32Array,
  );
  const stage = await Stage.create(document.createElement('canvas'));
  stage.setSize(SIZE, SIZE);
  const tracer = new Tracer();
  try {
    for (const one of cases) {
      const quick = await drawn(stage, one, geometry);
      const exact = traced(tracer, one, mesh);
      let [difference, sum] = [0, 0];
      for (let i = 0; i < exact.length; i++) {
        difference += Math.abs(quick[i] - exact[i]);
        sum += exact[i];
      }
      difference /= sum;
      yield {
        name: `Quick light as true light: ${one.name}`,
        difference,
        limit: one.limit,
        share: difference <= one.limit ? 0 : 1,
      };
    }
  } finally {
    stage.dispose();
    geometry.dispose();
  }
}

function sceneOf<Shape>(one: Case, shape: Shape): PictureAt<Shape> {
  const surfaces = { 0: { ...PLAIN_SURFACE, ...one.surface } };
  return {
    ribbons: [{ id: 'ball', shape, surfaces }],
    materials: new Map([['ball', surfaces]]),
    scene: {
      camera: { ...plain, ...one.camera },
      lights: one.lights ?? [sun],
      backdrop: { type: 'colour', colour: '#000000' },
      ground: one.ground ?? [],
      air: [],
      picture: [],
    },
    aspect: 1,
    files: [],
  };
}

/** Light of every pixel, rows from the top. */
async function drawn(stage: Stage, one: Case, geometry: SphereGeometry): Promise<Float32Array> {
  const triangles = Uint32Array.from(geometry.index!.array);
  const part: DrawablePart = {
    key: 'ball',
    topology: {
      key: 'ball',
      triangles,
      edges: new Uint32Array(0),
      lines: new Uint32Array(0),
      groups: [{ slot: 0, start: 0, count: triangles.length }],
      closed: true,
    },
    positions: geometry.getAttribute('position').array as Float32Array,
    normals: geometry.getAttribute('normal').array as Float32Array,
  };
  const frame: ViewFrame = { ...sceneOf(one, { key: 'ball', parts: [part] }), mode: 'shaded' };
  for (let n = 0; n < SUBFRAMES; n++) {
    await stage.room();
    stage.draw(frame, n, SUBFRAMES);
  }
  const light = await stage.lightIn(SIZE, SIZE);
  const out = new Float32Array(3 * SIZE * SIZE);
  for (let i = 0; i < SIZE * SIZE; i++) for (let k = 0; k < 3; k++) out[3 * i + k] = light[4 * i + k];
  return out;
}

function traced(tracer: Tracer, one: Case, mesh: Mesh): Float32Array {
  tracer.load(sceneOf(one, mesh), {
    width: SIZE,
    height: SIZE,
    bounces: bouncesOf(0),
    fireflyClamp: Infinity,
    seed: 0,
  });
  const sums = tracer.samples({ x: 0, y: 0, width: SIZE, height: SIZE }, 0, SAMPLES);
  const out = new Float32Array(3 * SIZE * SIZE);
  for (let i = 0; i < SIZE * SIZE; i++) for (let k = 0; k < 3; k++) out[3 * i + k] = sums[SUMS * i + k] / SAMPLES;
  return out;
}
