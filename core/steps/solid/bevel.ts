import { number } from '../../declare/params';
import { bevelled } from '../../shape/solid/bevel';
import { brief, checkFaces, defineStep } from '../step';

/** Rounds edges where faces meet at a sharp angle. */
export const bevel = defineStep({
  kind: 'bevel',
  title: 'Bevel',
  help: 'Rounds off the edges where faces meet at more than an angle.',
  icon: 'bevel',
  group: 'solid',
  needs: 'faces',
  params: {
    width: number('Width', 0.06, 'How far from the edge it begins; where faces are small, less.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 0.5],
    }),
    angle: number('Angle', 30, 'Edges where faces meet at more than this are bevelled.', {
      unit: '°',
      min: 0,
      max: 180,
      soft: [0, 180],
      step: 1,
    }),
    segments: number('Segments', 3, 'Faces across a bevel; 1 is flat.', {
      min: 1,
      max: 24,
      soft: [1, 8],
      integer: true,
    }),
  },
  summary: (v) => `${brief(v.width)} m from ${brief(v.angle)}° on`,
  evaluate(v, input) {
    if (v.width === 0) return input;
    checkFaces(
      input.connectivity.corners.length * (v.segments + 1),
      'Use fewer segments, or put Bevel before the steps that make many faces.',
    );
    return bevelled(input, v.width, v.angle, v.segments);
  },
});
