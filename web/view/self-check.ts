import { noises } from '@maypole/core/noise/kinds/index';
import type { Metric } from '@maypole/core/noise/kind';
import { noiseField, type NoiseSettings } from '@maypole/core/noise/noise';
import type { PatternAt } from '@maypole/core/pattern/pattern-at';
import { float, uv, vec4 } from 'three/tsl';
import {
  FloatType,
  LinearSRGBColorSpace,
  NearestFilter,
  NodeMaterial,
  QuadMesh,
  RenderTarget,
  WebGPURenderer,
} from 'three/webgpu';
import { PatternNodes } from './patterns/pattern-nodes';
import { shaderMaths as m } from './patterns/shader-maths';
import { drawsInSoftware } from './software';
import { scalar, type Scalar } from './tsl';

/** How far a thing that the graphics card draws is from what core works out. */
export interface Checked {
  readonly name: string;
  /** The largest difference: of noise, which is nominally −1…1; of light as a share of it. */
  readonly difference: number;
  /** The most it may be. */
  readonly limit: number;
  /** The share of places at which it is larger than `LIMIT`: a border of cells may fall on either side of a pixel. */
  readonly share: number;
}

/** The most that card and core may differ in. */
export const LIMIT = 1e-3;

/** Places each way. */
const SIZE = 48;
/** Metres of the pattern that are looked at. */
const SPAN = 5;

const plain: NoiseSettings = {
  kind: 'gradient',
  scale: 0.7,
  stretch: [1, 1.4, 1],
  octaves: 3,
  contrast: 1,
  brightness: 0,
  low: -4,
  high: 4,
  absolute: false,
  invert: false,
  seed: 3,
  rate: 1.3,
  shift: [0.2, -0.4, 0.1],
  turn: [20, 30, -10],
};

const cases: readonly { readonly name: string; readonly settings: NoiseSettings }[] = [
  ...noises.all.flatMap(({ kind, title, cellular }) =>
    (cellular ? (['euclidean', 'manhattan', 'chebyshev'] as const) : [undefined]).map((metric?: Metric) => ({
      name: metric && metric !== 'euclidean' ? `${title}, ${metric}` : title,
      settings: { ...plain, kind, metric, jitter: 0.9 },
    })),
  ),
  { name: 'Travelling', settings: { ...plain, travel: [1, 0, 2], tile: 8 } },
  { name: 'Eight octaves', settings: { ...plain, octaves: 8, gain: 0.6, lacunarity: 1.7 } },
];

/** Draws every noise on a graphics card of this machine and compares it with what core works out, one after the other. */
export async function* checkNoise(): AsyncGenerator<Checked> {
  const canvas = document.createElement('canvas');
  const renderer = new WebGPURenderer({ canvas, forceWebGL: drawsInSoftware(document.createElement('canvas')) });
  await renderer.init();
  renderer.outputColorSpace = LinearSRGBColorSpace;
  const target = new RenderTarget(SIZE, SIZE, {
    type: FloatType,
    minFilter: NearestFilter,
    magFilter: NearestFilter,
    depthBuffer: false,
  });
  const clock = { frame: 13, frames: 50 };
  try {
    for (const { name, settings } of cases) {
      const [x, y] = [scalar(uv().x.mul(SPAN)), scalar(uv().y.mul(SPAN))];
      const at = [x, y, scalar(float(0.3))] as const;
      const nodes = new PatternNodes({
        form: at,
        room: at,
        uv: [x, y],
        facing: m.number(0),
        depth: m.number(0),
        crevice: m.number(0),
        copy: { order: m.number(0), id: m.number(0), at },
      });
      const layer: PatternAt = {
        kind: 'noise',
        values: { space: 'form', tile: 8 },
        noise: settings,
        clock,
        how: 'over',
        amount: 1,
        round: false,
        // A quarter about the middle, so that nothing is cut off.
        times: 0.25,
        shift: 0.375,
        to: { type: 'number', low: 0, high: 1 },
      };
      const pattern = { channel: 'roughness', layers: [layer] } as const;
      const value: Scalar = nodes.number(pattern, m.number(0));
      nodes.update([pattern]);
      const material = new NodeMaterial();
      material.fragmentNode = vec4(value, value, value, 1);
      material.depthTest = material.toneMapped = false;
      renderer.setRenderTarget(target);
      new QuadMesh(material).render(renderer);
      const pixels = (await renderer.readRenderTargetPixelsAsync(target, 0, 0, SIZE, SIZE)) as Float32Array;
      yield { name, limit: LIMIT, ...compared(pixels, settings, clock) };
      material.dispose();
      nodes.dispose();
    }
  } finally {
    target.dispose();
    renderer.dispose();
  }
}

function compared(pixels: Float32Array, settings: NoiseSettings, clock: { frame: number; frames: number }) {
  const field = noiseField(settings, clock);
  // Cards differ in whether the first row is the lowest: the better of both ways counts.
  const ways = [false, true].map((upsideDown) => {
    let difference = 0;
    let over = 0;
    for (let j = 0; j < SIZE; j++)
      for (let i = 0; i < SIZE; i++) {
        const row = upsideDown ? SIZE - 1 - j : j;
        const own = (pixels[4 * (row * SIZE + i)] - 0.5) * 8;
        const d = Math.abs(own - field(((i + 0.5) / SIZE) * SPAN, ((j + 0.5) / SIZE) * SPAN, 0.3));
        difference = Math.max(difference, d);
        if (!(d <= LIMIT)) over++;
      }
    return { difference, share: over / SIZE ** 2 };
  });
  return ways[0].share <= ways[1].share ? ways[0] : ways[1];
}
