import { choice, number, vector } from '../../declare/params';
import { axisAngle, matrixOf, moved, type Quaternion } from '../../maths/quaternion';
import type { Vec3 } from '../../maths/vec3';
import { phaseOf } from '../../time/phase';
import { toRational } from '../../maths/rational';
import type { Clock } from '../../time/loop';
import { movedField } from '../../shape/fractals/field';
import { brief, defineStep } from '../step';

const AXES: Record<string, Vec3> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** The spin axis as a direction. */
export function spinAxis(v: { axis: string; direction: Vec3 }): Vec3 {
  return AXES[v.axis] ?? v.direction;
}

/** The rotation of the form at a moment. */
function spinAt(
  v: { axis: string; direction: Vec3; turns: number; symmetry: number; angle: number },
  clock: Clock,
): Quaternion {
  const turns = toRational(v.turns);
  const degrees = 360 * phaseOf({ num: turns.num, den: turns.den * v.symmetry }, clock);
  return axisAngle(spinAxis(v), (degrees + v.angle) % 360);
}

/** Rotates the form about any axis, at constant speed and by a settable angle. */
export const spin = defineStep({
  kind: 'spin',
  title: 'Spin',
  help: 'Turns the form about any line, round and round.',
  icon: 'spin',
  group: 'place',
  params: {
    axis: choice(
      'About',
      'y',
      [
        { value: 'x', title: 'X' },
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
        { value: 'free', title: 'Any direction' },
      ],
      'Direction of the line it turns about, in space and not in the pose of the form.',
    ),
    direction: vector('Direction', [1, 1, 1], 'Of the line; its length does not matter.', {
      min: -1000,
      max: 1000,
      soft: [-1, 1],
      shownWhen: { param: 'axis', is: ['free'] },
    }),
    through: vector('Through', [0, 0, 0], 'A point on the line.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
    }),
    turns: number('Turns', 1, 'Turns per loop at even speed; whole numbers close.', {
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [-4, 4],
      step: 1,
      counts: true,
    }),
    symmetry: number(
      'Symmetry',
      1,
      'How often the form looks the same in one turn about the line. With 4, each turn counted is a quarter turn, which already closes.',
      {
        min: 1,
        max: 360,
        soft: [1, 12],
        integer: true,
        moves: false,
      },
    ),
    angle: number('Angle', 0, 'Added to the turning; give it keys to turn unevenly.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
    }),
  },
  summary(v) {
    const about = `about ${v.axis === 'free' ? v.direction.map(brief).join(', ') : v.axis.toUpperCase()}`;
    return `${brief(v.turns)}${v.symmetry > 1 ? ` × 1/${v.symmetry}` : ''} ${Math.abs(v.turns) === 1 ? 'turn' : 'turns'} ${about}`;
  },
  reads: { clock: (v) => v.turns !== 0 },
  evaluate(v, input, { clock }) {
    const q = spinAt(v, clock);
    const linear = matrixOf(q);
    const shift = [0, 1, 2].map((r) => v.through.reduce((sum, x, k) => sum - linear[3 * r + k] * x, v.through[r]));
    const field = movedField(input.field, linear, shift);
    return {
      connectivity: input.connectivity,
      positions: moved(input.positions, q, [-v.through[0], -v.through[1], -v.through[2]], v.through),
      ...(field ? { field } : {}),
    };
  },
});
