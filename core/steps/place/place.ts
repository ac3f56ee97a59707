import { number, vector } from '../../declare/params';
import { matrixOf, turnXYZ } from '../../maths/quaternion';
import { movedField } from '../../shape/fractals/field';
import { brief, defineStep } from '../step';

/** Scale, then rotations about x, y and z in this order, then translation: p ↦ Rz·Ry·Rx·(size·stretch·p) + shift. */
export const place = defineStep({
  kind: 'place',
  title: 'Place',
  help: 'Moves, turns and sizes the form.',
  icon: 'place',
  group: 'place',
  carries: 'size',
  params: {
    shift: vector('Shift', [0, 0, 0], 'Along x, y and z.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      handle: 'place',
    }),
    turn: vector('Turn', [0, 0, 0], 'About x, then y, then z.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
    }),
    size: number('Size', 1, 'Factor on all lengths.', { unit: '×', min: 0, max: 1000, soft: [0, 4] }),
    stretch: vector('Per axis', [1, 1, 1], 'Further factors along its own x, y and z, before it is turned.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
  },
  summary(v) {
    const words: string[] = [];
    if (v.shift.some((x) => x !== 0)) words.push(`${v.shift.map(brief).join(', ')} m`);
    if (v.turn.some((x) => x !== 0)) words.push(`${v.turn.map(brief).join(', ')}°`);
    if (v.size !== 1) words.push(`× ${brief(v.size)}`);
    if (v.stretch.some((x) => x !== 1)) words.push(`× ${v.stretch.map(brief).join(', ')}`);
    return words.join(' · ') || 'as it is';
  },
  evaluate(v, input) {
    const m = matrixOf(turnXYZ(v.turn)).map((x, i) => v.size * v.stretch[i % 3] * x);
    const from = input.positions;
    const to = new Float32Array(from.length);
    for (let i = 0; i < from.length; i += 3)
      for (let r = 0; r < 3; r++)
        to[i + r] = m[3 * r] * from[i] + m[3 * r + 1] * from[i + 1] + m[3 * r + 2] * from[i + 2] + v.shift[r];
    const field = movedField(input.field, m, v.shift);
    return { connectivity: input.connectivity, positions: to, ...(field ? { field } : {}) };
  },
});
