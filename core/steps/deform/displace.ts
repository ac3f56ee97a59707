import { choice, number, toggle, vector } from '../../declare/params';
import { noiseKinds } from '../../noise/kinds/index';
import { noiseField } from '../../noise/noise';
import { vertexNormals } from '../../shape/normals';
import { brief, defineStep } from '../step';

const kindTitle = new Map(noiseKinds.map((k) => [k.kind as string, k.title]));

/** Moves every vertex by a closed noise read at its place. */
export const displace = defineStep({
  kind: 'displace',
  title: 'Displace',
  help: 'Pushes the surface in and out by noise.',
  icon: 'displace',
  group: 'deform',
  params: {
    height: number('Height', 0.3, 'How far a noise of 1 moves a point.', { unit: 'm', min: -100, max: 100, soft: [-1, 1], step: 0.01 }),
    direction: choice(
      'Direction',
      'normal',
      [
        { value: 'normal', title: 'Normal' },
        { value: 'radial', title: 'Radial' },
        { value: 'x', title: 'X' },
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
      ],
      'Along the surface normal, away from the origin, or along an axis.',
    ),
    noise: choice('Noise', 'gradient', noiseKinds.map((k) => ({ value: k.kind as string, title: k.title, help: k.help })), 'The kind of noise.'),
    scale: number('Scale', 0.8, 'Size of its features.', { unit: 'm', min: 0.001, max: 1000, soft: [0.05, 4] }),
    stretch: vector('Per axis', [1, 1, 1], 'Stretches the noise along x, y and z.', { unit: '×', min: 0.001, max: 1000, soft: [0.1, 8] }),
    octaves: number('Octaves', 1, 'Layers, each half the size of the one before.', { min: 1, max: 8, soft: [1, 6], integer: true }),
    contrast: number('Contrast', 1, 'Factor on the noise.', { unit: '×', min: -20, max: 20, soft: [0, 4], step: 0.05 }),
    brightness: number('Brightness', 0, 'Added to the noise.', { min: -5, max: 5, soft: [-1, 1] }),
    low: number('Low clip', -1, 'Noise is cut off below this.', { min: -5, max: 5, soft: [-1, 1] }),
    high: number('High clip', 1, 'Noise is cut off above this.', { min: -5, max: 5, soft: [-1, 1] }),
    absolute: toggle('Absolute', false, 'Folds hollows up into hills.'),
    invert: toggle('Invert', false, 'Swaps hills and hollows.'),
    seed: number('Seed', 0, 'Another number, another pattern.', { min: 0, max: 99_999, soft: [0, 100], integer: true }),
    rate: number('Rate', 1, 'How much the pattern changes in a loop; 0 stands still. It always closes.', {
      unit: '/loop', min: 0, max: 64, soft: [0, 6], step: 0.05,
    }),
  },
  summary: (v) => `${kindTitle.get(v.noise) ?? v.noise} · ${brief(v.height)} m`,
  changesByItself: (v) => v.rate > 0 && v.height !== 0,
  evaluate(v, input, { clock }) {
    if (v.height === 0) return input;
    const field = noiseField({ ...v, kind: v.noise }, clock);
    const from = input.positions;
    const to = new Float32Array(from.length);
    if (v.direction === 'normal' || v.direction === 'radial') {
      const normals = v.direction === 'normal' ? vertexNormals(input.connectivity, from) : from;
      const unit = v.direction === 'normal';
      for (let i = 0; i < from.length; i += 3) {
        let h = v.height * field(from[i], from[i + 1], from[i + 2]);
        if (!unit) h /= Math.sqrt(from[i] * from[i] + from[i + 1] * from[i + 1] + from[i + 2] * from[i + 2]) || 1;
        to[i] = from[i] + h * normals[i];
        to[i + 1] = from[i + 1] + h * normals[i + 1];
        to[i + 2] = from[i + 2] + h * normals[i + 2];
      }
    } else {
      const s = { x: 0, y: 1, z: 2 }[v.direction];
      to.set(from);
      for (let i = 0; i < from.length; i += 3) to[i + s] = from[i + s] + v.height * field(from[i], from[i + 1], from[i + 2]);
    }
    return { connectivity: input.connectivity, positions: to };
  },
});
