import { choice, number, toggle } from '../../declare/params';
import { copies, repeated } from '../../shape/repeat';
import { brief, checkFaces, defineStep } from '../step';
import { AXES, axisOptions, type Axis } from '../deform/frame';

/** The form and its mirror image. */
export const mirror = defineStep({
  kind: 'mirror',
  title: 'Mirror',
  help: 'Adds the image of the form in a mirror.',
  icon: 'mirror',
  group: 'build',
  copiesAs: 'one',
  params: {
    axis: choice('Across', 'x', axisOptions, 'The direction that is turned round.'),
    at: number('At', 0, 'Place of the mirror.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
    fold: toggle('Fold', false, 'Brings everything to one side first, so that both halves are alike.'),
  },
  summary: (v) => `across ${v.axis.toUpperCase()} at ${brief(v.at)} m`,
  evaluate(v, input) {
    const s = AXES[v.axis as Axis];
    const p = input.positions;
    checkFaces(2 * (input.connectivity.faceStart.length - 1), 'Put Mirror before the steps that make many faces.');
    const positions = copies(p, 2, (copy, to) => {
      to.set(p);
      for (let i = s; i < p.length; i += 3) {
        const d = v.fold ? Math.max(0, p[i] - v.at) : p[i] - v.at;
        to[i] = v.at + (copy === 0 ? d : -d);
      }
    });
    return { connectivity: repeated(input.connectivity, 2, true), positions };
  },
});
