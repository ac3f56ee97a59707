import { choice, number } from '../../declare/params';
import { brief, defineStep } from '../step';
import { AXES, axisOptions, inPivot, pivotParams, type Axis } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** Scales cross-sections along the form's length. */
export const taper = defineStep({
  kind: 'taper',
  title: 'Taper',
  help: 'Narrows or widens the form along its length.',
  icon: 'taper',
  group: 'deform',
  carries: 'size',
  params: {
    along: choice('Along', 'y', axisOptions, 'The length along which the size changes.'),
    start: number('Start', 1, 'Size at its beginning.', { unit: '×', min: -100, max: 100, soft: [0, 3] }),
    end: number('End', 0.2, 'Size at its end.', { unit: '×', min: -100, max: 100, soft: [0, 3] }),
    curve: number('Curve', 0, 'Bulges the way between them: above 0 outwards, below 0 inwards.', {
      unit: '%',
      min: -400,
      max: 400,
      soft: [-150, 150],
      step: 1,
    }),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.start)} → ${brief(v.end)} along ${v.along.toUpperCase()}`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const to = inPivot(v, input.positions, (p, reach) => {
      const s = AXES[v.along as Axis];
      const [u, w] = [(s + 1) % 3, (s + 2) % 3];
      const { low, high } = reach(s) ?? { low: 0, high: 1 };
      const length = high - low || 1;
      const out = p.slice();
      for (let i = 0; i < p.length; i += 3) {
        const x = (p[i + s] - low) / length;
        // A parabola over the straight line, highest in the middle.
        const k =
          v.start +
          (v.end - v.start) * x +
          (v.curve / 100) * 4 * x * (1 - x) * 0.5 * (Math.abs(v.start) + Math.abs(v.end));
        out[i + u] = p[i + u] * k;
        out[i + w] = p[i + w] * k;
      }
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
