import { choice, toggle } from '../../declare/params';
import { beside } from '../../copies/beside';
import { centresOf } from '../../copies/copies';
import { curvesMesh } from '../../shape/curves/curves';
import { defineStep, StepProblem } from '../step';

/** Curves through copies, in their order. */
export const thread = defineStep({
  kind: 'thread',
  title: 'Thread',
  help: 'Draws a curve through copies or particles, in their order.',
  icon: 'thread',
  group: 'repeat',
  reads: { copies: true },
  copiesAfter: (v, before) => before && v.keep === true,
  params: {
    one: choice(
      'One curve',
      'all',
      [
        { value: 'all', title: 'Through all' },
        { value: 'place', title: 'A place' },
      ],
      'Through all copies, or for each place of the last repeat one through the copies on it.',
    ),
    closed: toggle('Closed', false, 'The last leads back to the first.'),
    keep: toggle('Keep the copies', false, 'Leaves the copies beside the curve.'),
  },
  summary: (v) => (v.closed ? 'closed' : 'open'),
  evaluate(v, input) {
    const { copies } = input;
    if (!copies) throw new StepProblem('Thread needs copies; put a step of Repeat before it, such as Line or Rings.');
    const p = centresOf(copies);
    const lines = new Map<number, number[]>();
    for (let i = 0; i < copies.source.length; i++) {
      const line = v.one === 'place' && copies.group ? copies.group[i] : 0;
      const list = lines.get(line);
      if (list) list.push(i);
      else lines.set(line, [i]);
    }
    const curves = [...lines.values()]
      .filter((list) => list.length > 1)
      // Copies that move on swap positions in the list; the curve follows their order of places.
      .map((list) => ({
        points: sorted(list, copies.order, copies.group !== undefined).flatMap((i) => [
          p[3 * i],
          p[3 * i + 1],
          p[3 * i + 2],
        ]),
        closed: v.closed,
      }));
    if (curves.length === 0) throw new StepProblem('A thread needs at least two copies to lead through.');
    const made = curvesMesh(curves);
    return v.keep ? beside(copies, made) : made;
  },
});

function sorted(list: readonly number[], order: Float32Array, grouped: boolean): number[] {
  return grouped ? [...list] : [...list].sort((a, b) => order[a] - order[b]);
}
