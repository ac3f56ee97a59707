import { widened } from '../../declare/widen';
import { number, seed, vector, type Evaluated } from '../../declare/params';
import { vec3, type Vec3 } from '../../maths/vec3';
import { matrixOf, multiply, turnXYZ, type Quaternion } from '../../maths/quaternion';
import { copies, repeated } from '../../shape/repeat';
import { chanceOf } from '../../time/chance';
import { splitTime } from '../../time/phase';
import { brief, checkFaces, defineStep, type StepContext } from '../step';

/** Nested copies, each changed relative to the one before. */
export const nest = defineStep({
  kind: 'nest',
  title: 'Nest',
  help: 'Copies inside each other, each turned and sized from the one before.',
  icon: 'nest',
  group: 'build',
  params: {
    copies: number('Copies', 6, 'How many, the form itself among them.', {
      min: 1,
      max: 400,
      soft: [1, 24],
      integer: true,
    }),
    size: number('Size', 0.8, 'Of each, as a share of the one before.', {
      unit: '×',
      min: 0,
      max: 4,
      soft: [0.4, 1.2],
      step: 0.01,
    }),
    turn: vector('Turn', [0, 12, 0], 'Of each against the one before, about x, then y, then z.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-90, 90],
      step: 1,
    }),
    shift: vector('Shift', [0, 0, 0], 'Of each against the one before.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-1, 1],
      handle: 'place',
    }),
    spread: vector(
      'By chance',
      [0, 0, 0],
      'Turns each against the one before by up to this much more or less, by chance.',
      {
        unit: '°',
        min: 0,
        max: 36_000,
        soft: [0, 90],
        step: 1,
      },
    ),
    seed: seed('Seed', 0, 'A different number gives different random values.', 'chance', { moves: false }),
    later: number(
      'Each later',
      0,
      'Share of the loop by which each plays Size, Turn and Shift later than the one before.',
      {
        unit: '%',
        perLoop: -1,
        time: true,
        min: -1000,
        max: 1000,
        soft: [-20, 20],
        step: 0.5,
        moves: false,
      },
    ),
  },
  summary: (v) => `${v.copies} of × ${brief(v.size)}`,
  reads: { loop: (v) => v.later !== 0 },
  evaluate(v, input, context) {
    const p = input.positions;
    checkFaces(
      v.copies * (input.connectivity.faceStart.length - 1),
      'Use fewer copies, or put Nest before the steps that make many faces.',
    );
    const changes = changesOf(v, context);
    let pose: Quaternion = [0, 0, 0, 1];
    let scale = 1;
    let at: Vec3 = [0, 0, 0];
    const positions = copies(p, v.copies, (copy, to) => {
      if (copy > 0) {
        // In the frame of the previous copy, so that each change is the same relative to it.
        const { turn, size, shift } = changes(copy);
        const m = matrixOf(pose).map((x) => x * scale);
        const from = at;
        at = vec3((r) => from[r] + m[3 * r] * shift[0] + m[3 * r + 1] * shift[1] + m[3 * r + 2] * shift[2]);
        pose = multiply(pose, turn);
        scale *= size;
      }
      const m = matrixOf(pose).map((x) => x * scale);
      for (let i = 0; i < p.length; i += 3)
        for (let r = 0; r < 3; r++)
          to[i + r] = m[3 * r] * p[i] + m[3 * r + 1] * p[i + 1] + m[3 * r + 2] * p[i + 2] + at[r];
    });
    return { connectivity: repeated(input.connectivity, v.copies), positions };
  },
});

interface Change {
  readonly turn: Quaternion;
  readonly size: number;
  readonly shift: Vec3;
}

const MOVING = ['size', 'turn', 'shift', 'spread'] as const;

/** The change from copy k − 1 to copy k, each at its own time and with its own random numbers. */
function changesOf(v: Evaluated<typeof nest.params>, context: StepContext): (k: number) => Change {
  const { frame } = splitTime(context.clock);
  const here = frame / context.clock.frames;
  const chance = chanceOf(v.seed + 43);
  const spreads = v.spread.some((x) => x !== 0);
  const late = v.later !== 0 && context.valuesAt !== undefined && (context.moves?.(MOVING) ?? true);
  const even: Change | null = spreads || late ? null : { turn: turnXYZ(v.turn), size: v.size, shift: v.shift };
  return (k) => {
    if (even) return even;
    const at = late ? widened<typeof v>(context.valuesAt!(here - (k * v.later) / 100, MOVING)) : v;
    const turn = vec3((axis) => at.turn[axis] + at.spread[axis] * (2 * chance(3 * k + axis) - 1));
    return { turn: turnXYZ(turn), size: at.size, shift: at.shift };
  };
}
