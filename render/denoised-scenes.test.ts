import path from 'node:path';
import { AT_LENGTH } from '@maypole/core/fixtures/effort';
import { Denoiser } from '@maypole/core/develop/denoise';
import { developed } from '@maypole/core/develop/develop';
import { wholeLight, type LightPicture } from '@maypole/core/develop/light';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { finishParts } from '@maypole/core/finish/parts/index';
import { newFinish, newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { sceneLists } from '@maypole/core/scene/index';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pieceIn } from '../tools/draw-options';
import { TraceCrew } from './frame/trace-crew';
import { trueFrame } from './frame/true-frame';

/** Of the demo: fog, glow, mirrors, glass, film, wires, rods, a field of thin forms, bubbles, glass in glass. */
const DEMO = [
  '1-fog-signal',
  '2-gimbal',
  '5-dew-point',
  '8-aurora-switchboard',
  '9-pressure-cells',
  '10-isobar-field',
  '11-rime-lattice',
  '15-barometer-blooms',
  '17-hail-cage',
  '20-core-sample',
];

/** A form on a floor below a small lamp. */
function underALamp(piece: Piece['ribbons'][number]): Piece {
  const { lights, ground } = sceneLists;
  const plain = newPiece('Under a lamp');
  return {
    ...plain,
    ribbons: [piece],
    scene: {
      ...plain.scene,
      lights: [newItem(lights.kinds.get('ball'), { distance: 4, elevation: 60, radius: 0.15 })],
      ground: [newItem(ground.kinds.get('sweep'), {})],
    },
  };
}

/** Thin shadows. */
const rods = () =>
  underALamp({
    ...newRibbon('box', 0, 'Rods'),
    steps: [newStep('box', { segments: 3 }), newStep('struts', { rod: 0.015, joint: 0.03 })],
  });

/** Light gathered by glass. */
function caustic(): Piece {
  const ribbon = newRibbon('sphere', 0, 'Ball');
  const parts = ['base', 'glass'].map((kind) => newItem(finishParts.get(kind), {}));
  return underALamp({ ...ribbon, finishes: [{ ...newFinish('main'), parts }] });
}

const [width, height] = [144, 96];
/** Samples of the reference, the first of which are those of the raw picture. */
const MANY = 320;

/** Root of the mean square difference of red, green and blue as they are shown, of 255. */
function difference(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (i % 4 < 3) sum += (a[i] - b[i]) ** 2;
  return Math.sqrt(sum / (0.75 * a.length));
}

/** The mean of those samples of `all` that are not among the first, whose mean is `first`. */
function others(all: LightPicture, of: number, first: LightPicture, n: number): LightPicture {
  const rest = (k: 'values' | 'added') => all[k].map((v, i) => Math.max(0, (of * v - n * first[k][i]) / (of - n)));
  return { ...all, values: rest('values'), added: rest('added') };
}

/** Mean of red, green and blue, in linear light. */
function mean(light: LightPicture): number {
  const all = wholeLight(light);
  let sum = 0;
  for (let i = 0; i < all.length; i++) if (i % 4 < 3) sum += all[i];
  return sum / (0.75 * all.length);
}

// A reference of few samples has an error of its own, which counts in both and so changes nothing in which is larger.
describe.runIf(AT_LENGTH)('a denoised picture', () => {
  let crew: TraceCrew;
  beforeAll(() => void (crew = new TraceCrew(2)));
  afterAll(() => crew.close());

  const scenes = [
    ...DEMO.map(
      (name) => [name, () => pieceIn(path.join(import.meta.dirname, `../demo/${name}.maypole.json`))] as const,
    ),
    ['rods', rods] as const,
    ['caustic', caustic] as const,
  ];
  it.each(scenes)('is nearer to the truth than the raw one, and as bright: %s', async (_, make) => {
    const piece = await make();
    const cache = new MeshCache();
    const traced = (samples: number) =>
      trueFrame(
        crew,
        piece,
        0,
        { width, height, samples, error: 0, denoise: false, detail: 'final', passes: false },
        cache,
      );
    const shown = (light: LightPicture, { scene }: Awaited<ReturnType<typeof traced>>) =>
      new Uint8Array(developed(light, { scene, clear: false }).buffer);
    const reference = await traced(MANY);
    for (const samples of [16, 64]) {
      const raw = await traced(samples);
      const clean = new Denoiser().denoised(raw.light, raw.features);
      const truth = shown(others(reference.light, MANY, raw.light, samples), reference);
      const [before, after] = [raw.light, clean].map((light) => difference(shown(light, raw), truth));
      expect(after, `${samples} samples`).toBeLessThan(before);
      expect(Math.abs(mean(clean) / mean(raw.light) - 1), `mean of ${samples} samples`).toBeLessThan(0.001);
    }
  });
});
