import { number, vector } from '../../declare/params';
import { brief, defineStep } from '../step';

/** Pushes points away from a place, or draws them to it. */
export const push = defineStep({
  kind: 'push',
  title: 'Push',
  help: 'Pushes the form away from a point, or draws it there.',
  icon: 'push',
  group: 'deform',
  params: {
    from: vector('From', [0.8, 0.8, 0.8], 'The point.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
    amount: number('Amount', 0.4, 'How far what lies next to it is pushed; below 0 it is drawn to it.', { unit: 'm', min: -1000, max: 1000, soft: [-2, 2] }),
    reach: number('Reach', 1.2, 'Distance at which nothing is moved any more.', { unit: 'm', min: 0.001, max: 10_000, soft: [0.1, 5] }),
  },
  summary: (v) => `${brief(v.amount)} m within ${brief(v.reach)} m`,
  evaluate(v, input) {
    const p = input.positions;
    const to = p.slice();
    for (let i = 0; i < p.length; i += 3) {
      const [x, y, z] = [p[i] - v.from[0], p[i + 1] - v.from[1], p[i + 2] - v.from[2]];
      const d = Math.hypot(x, y, z);
      if (d >= v.reach || d === 0) continue;
      const t = 1 - d / v.reach;
      // Nothing is drawn through the point itself.
      const move = Math.max(-d, v.amount * t * t * (3 - 2 * t));
      to[i] += (x / d) * move;
      to[i + 1] += (y / d) * move;
      to[i + 2] += (z / d) * move;
    }
    return { connectivity: input.connectivity, positions: to };
  },
});
