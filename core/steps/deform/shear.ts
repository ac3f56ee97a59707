import { choice, number } from '../../declare/params';
import { brief, defineStep } from '../step';
import { AXES, axisOptions, inPivot, pivotParams, type Axis } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** Shifts cross-sections in proportion to their position along an axis. */
export const shear = defineStep({
  kind: 'shear',
  title: 'Shear',
  help: 'Leans the form over without turning its sections.',
  icon: 'shear',
  group: 'deform',
  params: {
    amount: number('Amount', 0.5, 'How far a section is shifted for each metre along.', {
      unit: '×',
      min: -100,
      max: 100,
      soft: [-2, 2],
    }),
    along: choice('Along', 'y', axisOptions, 'The length along which the shift grows.'),
    towards: choice('Towards', 'x', axisOptions, 'Where sections are shifted to.'),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.amount)} towards ${v.towards.toUpperCase()}`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const to = inPivot(v, input.positions, (p) => {
      const [s, t] = [AXES[v.along as Axis], AXES[v.towards as Axis]];
      const out = p.slice();
      for (let i = 0; i < p.length; i += 3) out[i + t] = p[i + t] + v.amount * p[i + s];
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
