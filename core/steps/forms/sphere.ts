import { number } from '../../declare/params';
import { lathe } from '../../shape/lathe';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

/** A sphere of meridians and parallels, with poles above and below. */
export const sphere = defineStep({
  kind: 'sphere',
  title: 'Sphere',
  help: 'A ball of meridians and parallels, with two poles.',
  icon: 'sphere',
  group: 'form',
  params: {
    radius: number('Radius', 1, 'From the centre to the surface.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    meridians: number('Meridians', 48, 'Faces round the axis.', { min: 3, max: 2000, soft: [3, 128], integer: true }),
    parallels: number('Parallels', 24, 'Faces from pole to pole.', { min: 2, max: 1000, soft: [2, 96], integer: true }),
    stretch,
  },
  summary: (v) => `${brief(v.radius)} m · ${v.meridians} × ${v.parallels}`,
  evaluate(v) {
    checkFaces(v.meridians * v.parallels, 'Use fewer meridians or parallels.');
    const profile = Array.from({ length: v.parallels + 1 }, (_, k) => {
      const a = Math.PI * (k / v.parallels - 0.5);
      return { r: k === 0 || k === v.parallels ? 0 : v.radius * Math.cos(a), y: v.radius * Math.sin(a) };
    });
    return stretched(lathe(profile, v.meridians), v.stretch);
  },
});
