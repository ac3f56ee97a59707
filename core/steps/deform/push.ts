import { choice, number, ribbon, vector } from '../../declare/params';
import { brief, defineStep, StepProblem } from '../step';
import { limited, nearPointsOf, regionMoves, regionParams } from './region';

/** Pushes points away from a place or another ribbon, or pulls them towards it. */
export const push = defineStep({
  kind: 'push',
  title: 'Push',
  help: 'Pushes the form away from a point or another ribbon, or draws it there.',
  icon: 'push',
  group: 'deform',
  carries: 'shift',
  params: {
    away: choice(
      'Away from',
      'point',
      [
        { value: 'point', title: 'A point' },
        { value: 'ribbon', title: 'A ribbon' },
      ],
      'What pushes.',
    ),
    from: vector('From', [0.8, 0.8, 0.8], 'The point.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      shownWhen: { param: 'away', is: ['point'] },
      handle: 'place',
    }),
    other: ribbon('Ribbon', 'The ribbon whose points push, each the nearest to it.', {
      shownWhen: { param: 'away', is: ['ribbon'] },
    }),
    amount: number('Amount', 0.4, 'How far the nearest points are pushed; below 0 they are pulled.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-2, 2],
    }),
    reach: number('Reach', 1.2, 'Distance beyond which nothing moves.', {
      unit: 'm',
      min: 0.001,
      max: 10_000,
      soft: [0.1, 5],
      handle: { from: 'from' },
    }),
    ...regionParams,
  },
  summary: (v) => `${brief(v.amount)} m within ${brief(v.reach)} m`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const p = input.positions;
    const to = p.slice();
    const other = v.away === 'ribbon' ? context.other?.('other') : undefined;
    if (v.away === 'ribbon' && !other && p.length > 0)
      throw new StepProblem('Push has nothing to push with; name another ribbon, or choose a point.');
    const near = other && nearPointsOf(other.positions, v.reach);
    for (let i = 0; i < p.length; i += 3) {
      let [ox, oy, oz] = v.from;
      if (near && other) {
        let [best, at] = [Infinity, -1];
        near.within(p[i], p[i + 1], p[i + 2], v.reach, (u, square) => {
          if (square < best) [best, at] = [square, u];
        });
        if (at < 0) continue;
        [ox, oy, oz] = [other.positions[3 * at], other.positions[3 * at + 1], other.positions[3 * at + 2]];
      }
      const [x, y, z] = [p[i] - ox, p[i + 1] - oy, p[i + 2] - oz];
      const d = Math.hypot(x, y, z);
      if (d >= v.reach || d === 0) continue;
      const t = 1 - d / v.reach;
      // Nothing is pulled beyond the place itself.
      const move = Math.max(-d, v.amount * t * t * (3 - 2 * t));
      to[i] += (x / d) * move;
      to[i + 1] += (y / d) * move;
      to[i + 2] += (z / d) * move;
    }
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
