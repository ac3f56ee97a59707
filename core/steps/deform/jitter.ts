import { number, seed, vector } from '../../declare/params';
import { swayAngles } from '../../noise/sway';
import { randomSource } from '../../maths/random';
import { brief, defineStep } from '../step';
import { limited, regionMoves, regionParams } from './region';

/** Moves every point by its own random amount, which may wander and return. */
export const jitter = defineStep({
  kind: 'jitter',
  title: 'Jitter',
  help: 'Moves every point at random.',
  icon: 'jitter',
  group: 'deform',
  carries: 'shift',
  params: {
    amount: vector('Amount', [0.05, 0.05, 0.05], 'The largest distance along x, y and z, in either direction.', {
      unit: 'm',
      min: 0,
      max: 100,
      soft: [0, 0.5],
    }),
    seed: seed('Seed', 1, 'A different number gives other places.', 'chance'),
    rate: number('Rate', 0, 'How much points wander in a loop; 0 stands still. It always closes.', {
      unit: '/loop',
      min: 0,
      max: 64,
      soft: [0, 6],
      step: 0.05,
    }),
    ...regionParams,
  },
  summary: (v) => `${v.amount.map(brief).join(', ')} m`,
  reads: { clock: (v) => (v.rate > 0 && v.amount.some((a) => a !== 0)) || regionMoves(v) },
  evaluate(v, input, context) {
    const { clock } = context;
    const p = input.positions;
    const random = randomSource(v.seed * 101 + 7);
    const sway = swayAngles(p.length, v.seed + 13, v.rate, clock);
    const to = new Float32Array(p.length);
    for (let i = 0; i < p.length; i++) to[i] = p[i] + v.amount[i % 3] * Math.sin(2 * Math.PI * random() + sway[i]);
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
