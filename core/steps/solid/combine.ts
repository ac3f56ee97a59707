import { choice, ribbon, toggle } from '../../declare/params';
import { combined, loadSolids, NotSolid, solidsLoaded } from '../../shape/solid/manifold';
import { defineStep, StepProblem } from '../step';

/** Boolean union, difference and intersection with another ribbon. */
export const combine = defineStep({
  kind: 'combine',
  title: 'Combine',
  help: 'Adds another ribbon to this solid, subtracts it, or keeps what both share: union, difference, intersection.',
  icon: 'combine',
  group: 'solid',
  copiesAs: 'one',
  needs: 'faces',
  load: loadSolids,
  loaded: solidsLoaded,
  params: {
    way: choice(
      'Operation',
      'difference',
      [
        { value: 'union', title: 'Union' },
        { value: 'difference', title: 'Difference' },
        { value: 'intersection', title: 'Intersection' },
      ],
      'Both together, this without the other, or what both share.',
    ),
    other: ribbon('With', 'The other ribbon; it may be hidden and still cut.', { serves: true }),
    inside: toggle('Cut inside', true, 'Faces that come from the other ribbon have the finish for insides.'),
  },
  summary: (v) => v.way,
  evaluate(v, input, context) {
    const other = context.other?.('other');
    if (input.connectivity.vertexCount === 0) return input;
    if (!other) throw new StepProblem('Combine has nothing to work with; name another ribbon.');
    if (other.connectivity.faceStart.length === 1)
      throw new StepProblem('The other ribbon has no faces; give it a body, or name another.');
    if (!solidsLoaded()) throw new StepProblem('The library for solids is still on its way.');
    try {
      return combined(input, other, v.way, v.inside);
    } catch (error) {
      if (error instanceof NotSolid) throw new StepProblem(error.message);
      throw error;
    }
  },
});
