import { vec3 } from '../../maths/vec3';
import { choice, number } from '../../declare/params';
import { axisAngle, moved } from '../../maths/quaternion';
import { copies, repeated } from '../../shape/repeat';
import { checkFaces, defineStep } from '../step';
import { AXES, axisOptions, type Axis } from '../deform/frame';

/** The form several times round an axis, like the petals of a flower. */
export const symmetry = defineStep({
  kind: 'symmetry',
  title: 'Symmetry',
  help: 'Repeats the form round an axis, evenly.',
  icon: 'symmetry',
  group: 'build',
  copiesAs: 'one',
  params: {
    times: number('Times', 6, 'How often in a whole turn.', { min: 1, max: 400, soft: [1, 24], integer: true }),
    axis: choice('About', 'y', axisOptions, 'The line they stand round, through the origin.'),
    outwards: number('Outwards', 0, 'Moves each away from the axis.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [0, 4],
    }),
  },
  summary: (v) => `${v.times} times about ${v.axis.toUpperCase()}`,
  evaluate(v, input) {
    checkFaces(
      v.times * (input.connectivity.faceStart.length - 1),
      'Use fewer times, or put Symmetry before the steps that make many faces.',
    );
    const s = AXES[v.axis as Axis];
    const axis = vec3((k) => Number(k === s));
    const out = vec3((k) => (k === (s + 1) % 3 ? v.outwards : 0));
    const positions = copies(input.positions, v.times, (copy, to) =>
      to.set(moved(input.positions, axisAngle(axis, (360 * copy) / v.times), out, [0, 0, 0])),
    );
    return { connectivity: repeated(input.connectivity, v.times), positions };
  },
});
