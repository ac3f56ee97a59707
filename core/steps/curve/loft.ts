import { choice, number, ribbon, toggle } from '../../declare/params';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { lofted } from '../../shape/curves/loft';
import { checkFaces, defineStep, StepProblem } from '../step';

/** A surface through a row of outlines. */
export const loft = defineStep({
  kind: 'loft',
  title: 'Loft',
  help: 'Spans a surface from outline to outline: those of this ribbon in their order, then those of another.',
  icon: 'loft',
  group: 'curve',
  needs: 'curves',
  params: {
    other: ribbon('To', 'A ribbon whose outlines come after those of this one.', { serves: true }),
    way: choice(
      'Between',
      'smooth',
      [
        { value: 'smooth', title: 'Smooth' },
        { value: 'straight', title: 'Straight' },
      ],
      'How it goes from one to the next.',
    ),
    around: number('Round', 96, 'Faces round each outline.', { min: 3, max: 2000, soft: [8, 240], integer: true }),
    rows: number('Rows', 12, 'Faces from one outline to the next.', { min: 1, max: 500, soft: [1, 48], integer: true }),
    joined: toggle('Back to first', false, 'Goes on from the last outline to the first.'),
    ends: toggle('Ends', true, 'Closes the first and the last outline.'),
  },
  summary: (v) => `${v.way}, ${v.rows} rows`,
  evaluate(v, input, context) {
    if (input.connectivity.vertexCount === 0) return input;
    const other = context.other?.('other');
    const sections = [input, ...(other ? [other] : [])].flatMap((m) =>
      polylinesOf(m.connectivity).map((l) => ({ points: pointsOf(m.positions, l), closed: l.closed })),
    );
    if (sections.length < 2)
      throw new StepProblem('Loft needs two outlines or more, and there is one; name another ribbon with an outline.');
    if (sections.some((s) => s.closed !== sections[0].closed))
      throw new StepProblem(
        'Loft cannot go from a closed curve to an open one; make all of them closed or all of them open.',
      );
    checkFaces(v.around * v.rows * sections.length, 'Use fewer rows or faces round.');
    return lofted(
      sections.map((s) => s.points),
      {
        closed: sections[0].closed,
        around: v.around,
        rows: v.rows,
        smooth: v.way === 'smooth',
        joined: v.joined && sections.length > 2,
        ends: v.ends,
      },
    );
  },
});
