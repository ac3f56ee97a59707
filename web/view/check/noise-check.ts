import { noises } from '@maypole/core/noise/kinds/index';
import type { Metric } from '@maypole/core/noise/kind';
import { noiseField, type NoiseSettings } from '@maypole/core/noise/noise';
import type { PatternAt } from '@maypole/core/pattern/pattern-at';
import { float, uv } from 'three/tsl';
import { LIMIT, type Checked } from './checked';
import { comparedNumbers, NumberDrawer } from './number-drawer';
import { PatternNodes } from '../patterns/pattern-nodes';
import { shaderMaths as m } from '../patterns/shader-maths';
import { scalar } from '../surfaces/tsl';

/** Width of the tested pattern in metres. */
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

/** Evaluates every noise on this machine's graphics card and compares it with core's. */
export async function* checkNoise(): AsyncGenerator<Checked> {
  const drawer = await NumberDrawer.create();
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
        occlusion: m.number(0),
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
        // A quarter around the middle, so that nothing clips.
        times: 0.25,
        shift: 0.375,
        to: { type: 'number', low: 0, high: 1 },
      };
      const pattern = { channel: 'roughness', layers: [layer] } as const;
      const value = nodes.number(pattern, m.number(0));
      nodes.update([pattern]);
      const drawn = (await drawer.draw(value)).map((x) => (x - 0.5) * 8);
      const field = noiseField(settings, clock);
      yield { name, limit: LIMIT, ...comparedNumbers(drawn, (u, v) => field(u * SPAN, v * SPAN, 0.3), LIMIT) };
      nodes.dispose();
    }
  } finally {
    drawer.dispose();
  }
}
