import { number } from '../../declare/params';
import { welded } from '../../shape/weld';
import { brief, defineStep } from '../step';

/** Merges points that lie within a distance. */
export const weld = defineStep({
  kind: 'weld',
  title: 'Weld',
  help: 'Joins points that lie within a distance of each other, so that faces meet again.',
  icon: 'weld',
  group: 'build',
  copiesAs: 'one',
  params: {
    distance: number('Distance', 0.001, 'Points nearer than this become one.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 0.2],
      step: 0.001,
    }),
  },
  summary: (v) => `within ${brief(v.distance)} m`,
  evaluate: (v, input) => welded(input, v.distance),
});
