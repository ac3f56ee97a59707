import { choice, number } from '../../declare/params';
import { noiseKinds } from '../../noise/kinds/index';
import { noiseFrom, noiseParams } from '../../noise/noise-params';
import { vertexNormals } from '../../shape/normals';
import { brief, defineStep } from '../step';
import { limited, regionParams } from './frame';

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
    ...noiseParams,
    ...regionParams,
  },
  summary: (v) => `${kindTitle.get(v.noise) ?? v.noise} · ${brief(v.height)} m`,
  changesByItself: (v) => (v.rate > 0 || v.travel.some((t) => t !== 0)) && v.height !== 0,
  evaluate(v, input, { clock }) {
    if (v.height === 0) return input;
    const field = noiseFrom(v, clock);
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
    return { connectivity: input.connectivity, positions: limited(v, from, to) };
  },
});
