import { number } from '../../declare/params';
import { parted } from '../../shape/part';
import { brief, defineStep } from '../step';

/** Separates faces where they meet at a sharp angle. */
export const part = defineStep({
  kind: 'part',
  title: 'Part edges',
  help: 'Takes faces apart where they meet at more than an angle: hard shading, and plates that later steps treat one by one.',
  icon: 'part',
  group: 'build',
  needs: 'faces',
  params: {
    angle: number('Angle', 30, 'Faces that meet at more than this are taken apart; 0 takes all apart.', {
      unit: '°',
      min: 0,
      max: 180,
      soft: [0, 180],
      step: 1,
    }),
  },
  summary: (v) => `from ${brief(v.angle)}° on`,
  evaluate: (v, input) => parted(input, v.angle),
});
