import { choice, type Evaluated, number, seed, toggle, vector } from '../declare/params';
import type { Clock } from '../time/loop';
import type { Field } from './gradients';
import type { Metric } from './kind';
import { noiseKinds } from './kinds/index';
import { noiseField, type NoiseSettings } from './noise';

const cells = noiseKinds.filter((k) => k.cellular).map((k) => k.kind);

/** Parameters that every step with a noise takes into its own. */
export const noiseParams = {
  noise: choice(
    'Noise',
    'gradient',
    noiseKinds.map((k) => ({ value: k.kind as string, title: k.title, help: k.help })),
    'The kind of noise.',
  ),
  metric: choice(
    'Distance',
    'euclidean',
    [
      { value: 'euclidean', title: 'Round' },
      { value: 'manhattan', title: 'Diamond' },
      { value: 'chebyshev', title: 'Square' },
    ],
    'How distance to the points is measured: Euclidean, Manhattan or Chebyshev.',
    { shownWhen: { param: 'noise', is: cells } },
  ),
  jitter: number('Jitter', 100, 'How irregularly the points are scattered.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    shownWhen: { param: 'noise', is: cells },
  }),
  space: choice(
    'Space',
    'place',
    [
      { value: 'place', title: 'In space' },
      { value: 'surface', title: 'On the surface' },
    ],
    'Where the pattern lies: in the space that the form stands in here (before Place it goes along with the ' +
      'form, after it the form moves through it), or laid on its surface (UV), without a break where that ' +
      'comes round.',
    { more: true },
  ),
  scale: number('Scale', 0.8, 'Size of its features.', {
    unit: 'm',
    min: 0.001,
    max: 1000,
    soft: [0.05, 4],
    shownWhen: { param: 'space', is: ['place'] },
  }),
  stretch: vector('Per axis', [1, 1, 1], 'Stretches the noise along x, y and z.', {
    unit: '×',
    min: 0.001,
    max: 1000,
    soft: [0.1, 8],
    more: true,
  }),
  octaves: number('Octaves', 1, 'Layers, each finer and weaker than the one before.', {
    min: 1,
    max: 8,
    soft: [1, 6],
    integer: true,
  }),
  gain: number('Gain', 50, 'Strength of each octave, as a share of the one before.', {
    unit: '%',
    min: 0,
    max: 200,
    soft: [0, 100],
    step: 1,
    more: true,
  }),
  lacunarity: number('Lacunarity', 2, 'How much finer each octave is than the one before.', {
    unit: '×',
    min: 1,
    max: 8,
    soft: [1, 4],
    step: 0.05,
    more: true,
  }),
  contrast: number('Contrast', 1, 'Factor on the noise.', { unit: '×', min: -20, max: 20, soft: [0, 4], step: 0.05 }),
  brightness: number('Brightness', 0, 'Added to the noise.', { min: -5, max: 5, soft: [-1, 1], more: true }),
  low: number('Low clip', -1, 'Noise is cut off below this.', { min: -5, max: 5, soft: [-1, 1], more: true }),
  high: number('High clip', 1, 'Noise is cut off above this.', { min: -5, max: 5, soft: [-1, 1], more: true }),
  absolute: toggle('Absolute', false, 'Folds hollows up into hills.', { more: true }),
  invert: toggle('Invert', false, 'Swaps hills and hollows.', { more: true }),
  seed: seed('Seed', 0, 'A different number gives another pattern.', 'pattern'),
  rate: number('Rate', 1, 'How much the pattern changes in its place in a loop; 0 stands still. It always closes.', {
    unit: '/loop',
    min: 0,
    max: 64,
    soft: [0, 6],
    step: 0.05,
  }),
  travel: vector(
    'Travels',
    [0, 0, 0],
    'Whole tiles that the pattern goes on along x, y and z in a loop. It always closes.',
    { unit: '/loop', min: -64, max: 64, soft: [-3, 3], integer: true, moves: false, more: true },
  ),
  tile: number(
    'Tile',
    8,
    'Features after which a pattern that travels or lies on the surface repeats: 2, 4, 8, 16 or more.',
    { min: 2, max: 256, soft: [2, 32], integer: true, moves: false, more: true },
  ),
  shift: vector('Shifted', [0, 0, 0], 'Moves the pattern through the form.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-3, 3],
    more: true,
  }),
  turn: vector('Turned', [0, 0, 0], 'Turns the pattern about x, then y, then z.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-180, 180],
    step: 1,
    more: true,
  }),
} as const;

export type NoiseValues = Evaluated<typeof noiseParams>;

/** The settings that evaluated parameters stand for. */
export function settingsFrom(v: NoiseValues): NoiseSettings {
  return { ...v, kind: v.noise, metric: v.metric as Metric, jitter: v.jitter / 100, gain: v.gain / 100 };
}

/** The field that evaluated parameters stand for: position in metres → value. */
export function noiseFrom(v: NoiseValues, clock: Clock): Field {
  return noiseField(settingsFrom(v), clock);
}

/** Whether the noise changes though all its values stand still. */
export function noiseMoves(v: NoiseValues): boolean {
  return v.rate > 0 || v.travel.some((t) => t !== 0);
}
