import { number } from '../../declare/params';
import { brief, defineStep } from '../step';
import { inPivot, pivotParams } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** Pulls every point towards a sphere about the pivot. */
export const spherify = defineStep({
  kind: 'spherify',
  title: 'Spherify',
  help: 'Draws the form towards a ball.',
  icon: 'spherify',
  group: 'deform',
  params: {
    amount: number('Amount', 100, 'How far on the way to the ball; below 0 away from it.', {
      unit: '%',
      min: -500,
      max: 500,
      soft: [-50, 100],
      step: 1,
    }),
    radius: number('Radius', 0, 'Of the ball; 0 takes the mean distance of all points.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.amount)} % to a ball`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const to = inPivot(v, input.positions, (p) => {
      let sum = 0;
      for (let i = 0; i < p.length; i += 3) sum += Math.hypot(p[i], p[i + 1], p[i + 2]);
      const radius = v.radius > 0 ? v.radius : sum / (p.length / 3 || 1);
      const out = new Float32Array(p.length);
      for (let i = 0; i < p.length; i += 3) {
        const d = Math.hypot(p[i], p[i + 1], p[i + 2]);
        const k = d > 0 ? 1 + (v.amount / 100) * (radius / d - 1) : 1;
        for (let c = 0; c < 3; c++) out[i + c] = p[i + c] * k;
      }
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
