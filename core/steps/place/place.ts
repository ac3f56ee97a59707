import { number, vector } from '../../declare/params';
import { brief, defineStep } from '../step';

/**
 * Size, then turns about x, y and z in this order, then a shift: p ↦ Rz·Ry·Rx·(size·p) + shift.
 */
export const place = defineStep({
  kind: 'place',
  title: 'Place',
  help: 'Moves, turns and sizes the form.',
  icon: 'place',
  group: 'place',
  carries: 'size',
  params: {
    shift: vector('Shift', [0, 0, 0], 'Along x, y and z.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
    turn: vector('Turn', [0, 0, 0], 'About x, then y, then z.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-360, 360], step: 1 }),
    size: number('Size', 1, 'Factor on all lengths.', { unit: '×', min: 0, max: 1000, soft: [0, 4] }),
  },
  summary(v) {
    const words: string[] = [];
    if (v.shift.some((x) => x !== 0)) words.push(`${v.shift.map(brief).join(', ')} m`);
    if (v.turn.some((x) => x !== 0)) words.push(`${v.turn.map(brief).join(', ')}°`);
    if (v.size !== 1) words.push(`× ${brief(v.size)}`);
    return words.join(' · ') || 'as it is';
  },
  evaluate(v, input) {
    const [ax, ay, az] = v.turn.map((a) => (a * Math.PI) / 180);
    const [cx, sx, cy, sy, cz, sz] = [Math.cos(ax), Math.sin(ax), Math.cos(ay), Math.sin(ay), Math.cos(az), Math.sin(az)];
    const k = v.size;
    const m = [
      [k * cz * cy, k * (cz * sy * sx - sz * cx), k * (cz * sy * cx + sz * sx)],
      [k * sz * cy, k * (sz * sy * sx + cz * cx), k * (sz * sy * cx - cz * sx)],
      [-k * sy, k * cy * sx, k * cy * cx],
    ];
    const from = input.positions;
    const to = new Float32Array(from.length);
    for (let i = 0; i < from.length; i += 3)
      for (let r = 0; r < 3; r++) to[i + r] = m[r][0] * from[i] + m[r][1] * from[i + 1] + m[r][2] * from[i + 2] + v.shift[r];
    return { connectivity: input.connectivity, positions: to };
  },
});
