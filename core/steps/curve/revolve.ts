import { choice, number } from '../../declare/params';
import { revolved } from '../../shape/curves/revolve';
import { AXES, axisOptions } from '../deform/frame';
import { brief, checkFaces, defineStep } from '../step';

/** Revolves curves about an axis. */
export const revolve = defineStep({
  kind: 'revolve',
  title: 'Revolve',
  help: 'Turns curves round an axis into a body, all the way or part of it.',
  icon: 'revolve',
  group: 'curve',
  needs: 'curves',
  params: {
    axis: choice('About', 'y', axisOptions, 'The line it turns round, through the origin.'),
    angle: number('Angle', 360, 'How far round.', { unit: '°', min: 0, max: 360, soft: [0, 360], step: 1 }),
    sides: number('Sides', 64, 'Faces round the axis.', { min: 3, max: 2000, soft: [3, 160], integer: true }),
    rise: number('Rise', 0, 'How far it climbs along the axis on its way.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
    }),
  },
  summary: (v) => `${brief(v.angle)}° about ${v.axis.toUpperCase()}`,
  evaluate(v, input) {
    if (input.connectivity.vertexCount === 0) return input;
    checkFaces(v.sides * input.connectivity.curves!.points.length, 'Use fewer sides or points along the curve.');
    return revolved(input, AXES[v.axis], (v.angle * Math.PI) / 180, v.sides, v.rise);
  },
});
