import { mapParams, choice, colour, number, toggle, vector } from '../../declare/params';
import { noiseMoves, noiseParams } from '../../noise/noise-params';
import { brief, defineStep, StepProblem } from '../step';
import { regionMoves, regionParams } from '../deform/region';
import { lags } from './lagging';
import { change, playedLate } from './vary-change';
import { WHAT, type What } from './vary-what';
import { inKernels, changedInKernels } from './vary-run';

const when = (...is: What[]) => ({ shownWhen: { param: 'what', is } }) as const;
/** The first of two values: if all copies are alike there is only the second. */
const first = (...is: What[]) =>
  ({
    shownWhen: [
      { param: 'what', is },
      { param: 'by', is: ['order', 'chance', 'noise', 'place'] },
    ],
  }) as const;
const dealt = (...is: string[]) => ({ shownWhen: { param: 'by', is } }) as const;

/** Rows of a noise, shown where noise distributes the values; it is always spatial. */
const { space: _space, scale, ...rest } = noiseParams;
const noiseRows = {
  ...mapParams(rest, (p, name) =>
    p.shownWhen
      ? p
      : { ...p, ...(name === 'seed' ? { ...dealt('noise', 'chance'), seeds: 'chance' as const } : dealt('noise')) },
  ),
  scale: { ...scale, ...dealt('noise') },
};

/** Differences between copies. */
export const vary = defineStep({
  kind: 'vary',
  title: 'Vary',
  help: 'Makes copies differ in place, turn, size, time or colour, or follow late and springy.',
  icon: 'vary',
  group: 'repeat',
  copiesAfter: (_, before) => before,
  params: {
    what: choice('Vary', 'size', WHAT, 'What differs from copy to copy.'),
    by: choice(
      'By',
      'order',
      [
        { value: 'order', title: 'Order' },
        { value: 'chance', title: 'Chance' },
        { value: 'noise', title: 'Noise' },
        { value: 'place', title: 'Place' },
        { value: 'same', title: 'All alike' },
      ],
      'What places each copy between the first and the second value. A region makes it stronger here and weaker there.',
    ),
    shiftFrom: vector('From', [0, 0, 0], 'Shift of a copy at the beginning.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-2, 2],
      ...first('shift'),
    }),
    shiftTo: vector('To', [0, 0.5, 0], 'Shift of a copy at the end.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-2, 2],
      ...when('shift'),
    }),
    own: toggle(
      'Along its own axes',
      true,
      'Shifts along the axes of the copy as it is turned; otherwise along those of the room.',
      when('shift'),
    ),
    // A copy takes a fraction of the rotation, and a fraction of a whole turn is not whole, so whole turns do not close
    // by themselves here.
    turnFrom: vector('From', [0, 0, 0], 'Turn of a copy at the beginning, about its own x, then y, then z.', {
      unit: '°',
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
      ...first('turn'),
    }),
    turnTo: vector('To', [0, 0, 45], 'Turn of a copy at the end.', {
      unit: '°',
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
      ...when('turn'),
    }),
    sizeFrom: number('From', 1, 'Factor on the size of a copy at the beginning.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 2],
      ...first('size'),
    }),
    sizeTo: number('To', 0.4, 'Factor on the size of a copy at the end.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 2],
      ...when('size'),
    }),
    stretchFrom: vector('From', [1, 1, 1], 'Factors along the copy’s own x, y and z at the beginning.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 2],
      ...first('stretch'),
    }),
    stretchTo: vector('To', [1, 2, 1], 'Factors along them at the end.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 2],
      ...when('stretch'),
    }),
    lateFrom: number(
      'From',
      0,
      'How much later everything before this step plays for a copy at the beginning, as a share of the loop.',
      {
        unit: '%',
        perLoop: -1,
        time: true,
        min: -1000,
        max: 1000,
        soft: [-100, 100],
        step: 1,
        moves: false,
        ...first('late'),
      },
    ),
    lateTo: number(
      'To',
      100,
      'How much later for a copy at the end. It is rounded to whole frames, so that copies share what they can.',
      {
        unit: '%',
        perLoop: -1,
        time: true,
        min: -1000,
        max: 1000,
        soft: [-100, 100],
        step: 1,
        moves: false,
        ...when('late'),
      },
    ),
    colourFrom: colour('From', '#d9483b', 'Colour of a copy at the beginning.', first('colour')),
    colourTo: colour('To', '#3a86b7', 'Colour of a copy at the end.', when('colour')),
    amountFrom: number('From', 0, 'At the beginning.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
      ...first('roughness', 'metalness'),
    }),
    amountTo: number('To', 100, 'At the end.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
      ...when('roughness', 'metalness'),
    }),
    share: number('Shown', 50, 'Share of the copies that are shown, those nearest the beginning first.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
      ...when('shown'),
    }),
    shareSoft: number('Grows over', 10, 'A copy grows to its size while the share rises by this much.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 50],
      step: 1,
      ...when('shown'),
    }),
    runs: choice(
      'Runs',
      'once',
      [
        { value: 'once', title: 'First to last' },
        { value: 'back', title: 'There and back' },
      ],
      'From the first copy to the last, or to the middle and back.',
      dealt('order'),
    ),
    times: number('Times', 1, 'How often it runs through all copies.', {
      min: 1,
      max: 1000,
      soft: [1, 12],
      integer: true,
      ...dealt('order'),
    }),
    axis: choice(
      'Along',
      'y',
      [
        { value: 'x', title: 'X' },
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
        { value: 'out', title: 'Distance' },
      ],
      'Which coordinate of its place counts, or its distance from the origin.',
      dealt('place'),
    ),
    lowAt: number('Begins at', -1, 'Where the first value holds.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-4, 4],
      ...dealt('place'),
    }),
    highAt: number('Ends at', 1, 'Where the second value holds.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-4, 4],
      ...dealt('place'),
    }),
    ...noiseRows,
    clamp: toggle(
      'Stay within',
      false,
      'Keeps values between the first and the second; what would go beyond is cut off.',
      { more: true },
    ),
    one: choice(
      'Counts',
      'copy',
      [
        { value: 'copy', title: 'Each copy' },
        { value: 'group', title: 'Each place' },
      ],
      'Where repeats are repeated: every copy differs, or those on one place of the last repeat go together.',
      { more: true },
    ),
    behind: number(
      'Each later',
      0,
      'Share of the loop by which each copy follows the one before: the same motion, later.',
      { unit: '%', perLoop: -1, time: true, min: -1000, max: 1000, soft: [-20, 20], step: 0.5, moves: false },
    ),
    scattered: number(
      'And by chance',
      0,
      'Up to this share of the loop later, by chance. It is added to time, so all keep the same pace.',
      { unit: '%', perLoop: -1, time: true, min: -1000, max: 1000, soft: [0, 100], step: 1, moves: false },
    ),
    springy: choice(
      'Springs',
      'no',
      [
        { value: 'no', title: 'None' },
        { value: 'chain', title: 'On the one before' },
        { value: 'all', title: 'All on the values' },
        { value: 'before', title: 'As the Vary before' },
      ],
      'Copies hang on springs: each on the one before it, or all on the values themselves. As the Vary before ' +
        'sets them once for several.',
    ),
    swings: number('Stiffness', 4, 'Swings a loop that a spring would make by itself: more is stiffer.', {
      unit: '/loop',
      min: 0.1,
      max: 200,
      soft: [0.5, 16],
      step: 0.1,
      moves: false,
      shownWhen: { param: 'springy', is: ['chain', 'all'] },
    }),
    damping: number('Damping', 40, '100 % comes to rest without swinging past.', {
      unit: '%',
      min: 1,
      max: 1000,
      soft: [1, 150],
      step: 1,
      moves: false,
      shownWhen: { param: 'springy', is: ['chain', 'all'] },
    }),
    ...regionParams,
  },
  summary: (v) =>
    `${WHAT.find((w) => w.value === v.what)!.title.toLowerCase()} ` +
    `${v.by === 'same' ? 'of all' : `by ${v.by}`}${v.behind ? `, each ${brief(v.behind)} % later` : ''}`,
  shares: { where: 'springy', is: 'before', names: ['springy', 'swings', 'damping'] },
  reads: {
    copies: true,
    clock: (v) => (v.by === 'noise' && noiseMoves({ ...v, space: 'place' })) || regionMoves(v),
    loop: (v) => v.what === 'late' || lags(v),
  },
  evaluate(v, input, context) {
    if (!input.copies)
      throw new StepProblem('Vary needs copies; put a step of Repeat before it, such as Line, Rings or Scatter.');
    return v.what === 'late' ? playedLate(v, input, context) : change(v, input.copies, context);
  },
  together: {
    can: inKernels,
    evaluate: (list, input, context) => (input.copies ? changedInKernels(list, input.copies, context) : null),
  },
});
