import { choice, number, ribbon } from '../../declare/params';
import { boundsShown, facesShown, flattened, withCopies } from '../../copies/copies';
import { roomBelow } from '../../shape/columns';
import { boundsOf } from '../../shape/measure';
import { brief, defineStep, StepProblem } from '../step';

/** Forms with more faces rest by their bounding boxes, because finding their contact would take seconds. */
const MOST_FACES = 300_000;

/** Drops the form onto the ground or another ribbon. */
export const rest = defineStep({
  kind: 'rest',
  title: 'Rest on',
  help: 'Stands the form on the ground or on top of another ribbon, without measuring.',
  icon: 'rest',
  group: 'solid',
  reads: { copies: true },
  copiesAfter: (_, before) => before,
  params: {
    on: choice(
      'On',
      'ground',
      [
        { value: 'ground', title: 'Ground' },
        { value: 'ribbon', title: 'Another ribbon' },
      ],
      'What it stands on.',
    ),
    other: ribbon(
      'Ribbon',
      'It sinks until it touches this ribbon; where they are not over each other, to the height of its top.',
      { shownWhen: { param: 'on', is: ['ribbon'] } },
    ),
    ground: number('Ground', 0, 'Height of the ground.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      shownWhen: { param: 'on', is: ['ground'] },
    }),
    gap: number('Gap', 0, 'Room left between; below 0 it sinks in.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-1, 1],
    }),
    over: choice(
      'Stands',
      'here',
      [
        { value: 'here', title: 'Where it is' },
        { value: 'middle', title: 'In the middle' },
      ],
      'Where it is, or over the middle of what it stands on.',
    ),
  },
  summary: (v) => (v.on === 'ground' ? `ground, gap ${brief(v.gap)} m` : `ribbon, gap ${brief(v.gap)} m`),
  evaluate(v, input, context) {
    const own = boundsShown(input);
    if (!own) return input;
    const other = context.other?.('other');
    const below = v.on === 'ribbon' && other ? boundsOf(other.positions) : null;
    if (v.on === 'ribbon' && !below)
      throw new StepProblem('Rest on has nothing to stand on; name another ribbon, or choose the ground.');
    const middle = (axis: 0 | 2) =>
      v.over === 'middle'
        ? (below ? (below.min[axis] + below.max[axis]) / 2 : 0) - (own.min[axis] + own.max[axis]) / 2
        : 0;
    // Starts above everything, then moves down until something touches.
    const top = (below ? below.max[1] : v.ground) - own.min[1];
    const room =
      below && other && facesShown(input) <= MOST_FACES
        ? roomBelow(flattened(input), other, [middle(0), top, middle(2)])
        : 0;
    const shift = [middle(0), top + v.gap - (Number.isFinite(room) ? room : 0), middle(2)];
    if (input.copies)
      return withCopies({
        ...input.copies,
        matrices: input.copies.matrices.map((x, i) => (i % 16 > 11 && i % 16 < 15 ? x + shift[(i % 16) - 12] : x)),
      });
    return { connectivity: input.connectivity, positions: input.positions.map((x, i) => x + shift[i % 3]) };
  },
});
