import { number, vector } from '../../declare/params';
import { matrixOf, multiply, turnXYZ, type Quaternion } from '../../shape/quaternion';
import { copies, repeated } from '../../shape/repeat';
import { brief, checkFaces, defineStep } from '../step';

/** Copies inside each other, each changed relative to the one before. */
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
    }),
  },
  summary: (v) => `${v.copies} of × ${brief(v.size)}`,
  evaluate(v, input) {
    const p = input.positions;
    checkFaces(
      v.copies * (input.connectivity.faceStart.length - 1),
      'Use fewer copies, or put Nest before the steps that make many faces.',
    );
    const step = turnXYZ(v.turn);
    let pose: Quaternion = [0, 0, 0, 1];
    let scale = 1;
    let at: [number, number, number] = [0, 0, 0];
    const positions = copies(p, v.copies, (copy, to) => {
      if (copy > 0) {
        // In the frame of the one before, so that the change is the same from each to the next.
        const m = matrixOf(pose).map((x) => x * scale);
        at = [0, 1, 2].map(
          (r) => at[r] + m[3 * r] * v.shift[0] + m[3 * r + 1] * v.shift[1] + m[3 * r + 2] * v.shift[2],
        ) as [number, number, number];
        pose = multiply(pose, step);
        scale *= v.size;
      }
      const m = matrixOf(pose).map((x) => x * scale);
      for (let i = 0; i < p.length; i += 3)
        for (let r = 0; r < 3; r++)
          to[i + r] = m[3 * r] * p[i] + m[3 * r + 1] * p[i + 1] + m[3 * r + 2] * p[i + 2] + at[r];
    });
    return { connectivity: repeated(input.connectivity, v.copies), positions };
  },
});
