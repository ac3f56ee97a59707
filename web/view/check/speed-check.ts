import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import type { CameraAt, LightAt, PictureEffectAt } from '@maypole/core/scene/kind';
import {
  BufferAttribute,
  BufferGeometry,
  DirectionalLight,
  HalfFloatType,
  Mesh,
  MeshStandardMaterial,
  PerspectiveCamera,
  RenderTarget,
  Scene,
  WebGPURenderer,
} from 'three/webgpu';
import type { DrawablePart, ViewFrame } from '../stage/frame';
import { drawsInSoftware } from '../stage/software';
import { Stage } from '../stage/stage';
import { environmentPicture } from '@maypole/core/scene/environment/picture';
import { environmentTexture } from '../lights/environment-textures';

/** Time of a sub-frame. */
export interface Timed {
  readonly name: string;
  readonly milliseconds: number;
}

const [WIDTH, HEIGHT] = [640, 480];
/** Sub-frames that are timed, after some that are not. */
const [WARM, ROUNDS] = [3, 7];

/** A torus of about so many triangles. */
function torus(triangles: number): DrawablePart {
  const round = Math.round(Math.sqrt(triangles * 1.25));
  const pipe = Math.round(triangles / 2 / round);
  const count = round * pipe;
  const [positions, normals] = [new Float32Array(3 * count), new Float32Array(3 * count)];
  const corners = new Uint32Array(6 * count);
  for (let i = 0; i < round; i++)
    for (let j = 0; j < pipe; j++) {
      const [u, v] = [(2 * Math.PI * i) / round, (2 * Math.PI * j) / pipe];
      const at = i * pipe + j;
      const n = [Math.cos(u) * Math.cos(v), Math.sin(v), Math.sin(u) * Math.cos(v)];
      normals.set(n, 3 * at);
      positions.set([Math.cos(u) + 0.4 * n[0], 0.4 * n[1], Math.sin(u) + 0.4 * n[2]], 3 * at);
      const [a, b] = [((i + 1) % round) * pipe, (j + 1) % pipe];
      corners.set([at, i * pipe + b, a + b, at, a + b, a + j], 6 * at);
    }
  const key = `torus ${triangles}`;
  return {
    key,
    topology: {
      key,
      triangles: corners,
      edges: new Uint32Array(0),
      lines: new Uint32Array(0),
      groups: [{ slot: 0, start: 0, count: corners.length }],
      closed: true,
    },
    positions,
    normals,
  };
}

const camera: CameraAt = {
  position: [3, 3, 4],
  target: [0, 0, 0],
  focalLength: 50,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
  exposure: 1,
  lensRadius: 0,
  blades: 0,
  focusDistance: 5,
  shutter: 0,
};

const studio: LightAt = { type: 'studio', strength: 1, turn: 0 };
const ball = (i: number, shadow: boolean): LightAt => ({
  type: 'ball',
  intensity: 20,
  at: [3 * Math.sin(i), 3, 3 * Math.cos(i)],
  radius: 0.2,
  colour: [1, 1, 1],
  shadow,
});
const sun: LightAt = { type: 'sun', irradiance: 3, from: [0.5, 0.7, 0.51], angle: 1, colour: [1, 1, 1], shadow: true };
const bloom: PictureEffectAt = { type: 'bloom', amount: 0.4, spread: 0.6, from: 0.8 };

interface Case {
  readonly name: string;
  readonly triangles?: number;
  readonly lights?: readonly LightAt[];
  readonly picture?: readonly PictureEffectAt[];
  readonly surface?: Partial<Surface>;
  readonly scene?: Partial<ViewFrame['scene']>;
}

const usual = { lights: [studio, sun], picture: [bloom] };

const cases: readonly Case[] = [
  { name: '20k triangles, studio, one shadow, bloom', ...usual },
  { name: '… without the bloom', ...usual, picture: [] },
  { name: '… without bloom and shadow', lights: [studio] },
  { name: '… 5k triangles', triangles: 5_000, ...usual },
  { name: '… 80k triangles', triangles: 80_000, ...usual },
  { name: '… and a lamp without a shadow', ...usual, lights: [studio, sun, ball(1, false)] },
  {
    name: '… and four lamps without shadows',
    ...usual,
    lights: [studio, sun, ...[0, 1, 2, 3].map((i) => ball(i, false))],
  },
  { name: '… and a lamp with a shadow', ...usual, lights: [studio, sun, ball(1, true)] },
  {
    name: '… and vignette, grain, look, curve, fringe',
    ...usual,
    picture: [
      bloom,
      { type: 'vignette', amount: 0.3, reach: 0.5 },
      { type: 'look', contrast: 0.2, saturation: 1, warmth: 0, lift: 0 },
      { type: 'levels', heights: [0, 0.2, 0.5, 0.8, 1], slopes: [1, 1, 1, 1, 1], of: [1, 1, 1] },
      { type: 'fringe', amount: 0.2 },
      { type: 'grain', amount: 0.1, size: 1.5, throw: 1 },
    ],
  },
  {
    name: '… in a coat and a thin film',
    ...usual,
    surface: { clearcoat: 1, iridescence: 1, features: ['film', 'coat'] },
  },
  {
    name: '… in lit air',
    ...usual,
    scene: {
      air: [{ type: 'haze', colour: '#FFFFFF', extinction: 0.1, height: 0, ground: 0, forward: 0.3, reach: 6 }],
    },
  },
  {
    name: '… on a floor that mirrors it',
    ...usual,
    scene: {
      ground: [{ type: 'catcher', height: -0.5, strength: 0.5, colour: '#000000', reach: 8, mirror: 0.5, rough: 0.2 }],
    },
  },
];

function frameOf({ triangles = 20_000, lights = [], picture = [], surface, scene }: Case): ViewFrame {
  const part = torus(triangles);
  return {
    ribbons: [
      {
        id: 'torus',
        shape: { key: part.key, parts: [part] },
        surfaces: { 0: { ...PLAIN_SURFACE, roughness: 0.4, baseColor: '#D9483B', ...surface } },
      },
    ],
    materials: new Map(),
    scene: { camera, lights, backdrop: { type: 'colour', colour: '#CDD4D4' }, ground: [], air: [], picture, ...scene },
    aspect: WIDTH / HEIGHT,
    files: [],
    mode: 'shaded',
  };
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];

/** Times one more sub-frame, until it can be read. */
async function timed(draw: (number: number) => void, read: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let n = 0; n < WARM + ROUNDS; n++) {
    const start = performance.now();
    draw(n);
    await read();
    if (n >= WARM) times.push(performance.now() - start);
  }
  return median(times);
}

/** The same triangles, studio and sun with shadow by the library alone, for comparison. */
async function plainLibrary(): Promise<Timed> {
  const canvas = document.createElement('canvas');
  const renderer = new WebGPURenderer({ canvas, forceWebGL: drawsInSoftware(document.createElement('canvas')) });
  await renderer.init();
  renderer.shadowMap.enabled = true;
  const scene = new Scene();
  scene.environment = environmentTexture(environmentPicture({ type: 'studio', strength: 1, turn: 0 })!);
  const part = torus(20_000);
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(part.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(part.normals, 3));
  geometry.setIndex(new BufferAttribute(part.topology.triangles, 1));
  const mesh = new Mesh(geometry, new MeshStandardMaterial({ color: '#D9483B', roughness: 0.4 }));
  mesh.castShadow = mesh.receiveShadow = true;
  const light = new DirectionalLight('#ffffff', 3);
  light.position.set(2, 3, 2);
  light.castShadow = true;
  light.shadow.mapSize.set(1024, 1024);
  scene.add(mesh, light);
  const eye = new PerspectiveCamera(40, WIDTH / HEIGHT, 0.1, 50);
  eye.position.set(...camera.position);
  eye.lookAt(0, 0, 0);
  const target = new RenderTarget(WIDTH, HEIGHT, { type: HalfFloatType });
  renderer.setRenderTarget(target);
  const milliseconds = await timed(
    () => {
      light.shadow.needsUpdate = true;
      renderer.render(scene, eye);
    },
    () => renderer.readRenderTargetPixelsAsync(target, 0, 0, 1, 1),
  );
  target.dispose();
  geometry.dispose();
  void renderer.dispose();
  return { name: 'The drawing library alone: 20k triangles, studio, one shadow', milliseconds };
}

/** Times sub-frames of 640 × 480 pixels of scenes that differ in one thing each. */
export async function* measureSpeed(): AsyncGenerator<Timed> {
  yield await plainLibrary();
  const stage = await Stage.create(document.createElement('canvas'));
  stage.setSize(WIDTH, HEIGHT);
  try {
    for (const one of cases) {
      const frame = frameOf(one);
      const milliseconds = await timed(
        (n) => stage.draw(frame, n, WARM + ROUNDS),
        () => stage.lightAt(1, 1),
      );
      yield { name: one.name, milliseconds };
    }
  } finally {
    stage.dispose();
  }
}
