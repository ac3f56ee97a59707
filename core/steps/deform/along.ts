import { choice, number, ribbon } from '../../declare/params';
import { pathAlong } from '../../shape/curves/along-path';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { boundsOf } from '../../shape/measure';
import { brief, defineStep, StepProblem } from '../step';
import { AXES, axisOptions } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** Bends a form along the curve of another ribbon. */
export const along = defineStep({
  kind: 'along',
  title: 'Along a path',
  help: 'Lays the form along the curve of another ribbon; round a closed one its ends meet.',
  icon: 'along',
  group: 'deform',
  carries: 'size',
  params: {
    other: ribbon('Path', 'A ribbon whose first curve is the path.', { serves: true }),
    axis: choice('Axis', 'y', axisOptions, 'Which axis of the form runs along the path.'),
    fit: choice(
      'Fit',
      'whole',
      [
        { value: 'whole', title: 'Whole path' },
        { value: 'length', title: 'Own length' },
      ],
      'Whether it is stretched to the length of the path or keeps its own.',
    ),
    at: number('At', 0, 'How far along it begins, as a share of the path; on a closed path 100 % comes round.', {
      unit: '%',
      cyclic: 100,
      min: -10_000,
      max: 10_000,
      soft: [-100, 100],
      step: 0.5,
    }),
    twist: number('Twist', 0, 'Turns about the path from one end to the other; round a closed path whole ones join.', {
      unit: 'turns',
      min: -100,
      max: 100,
      soft: [-4, 4],
      step: 0.25,
    }),
    bank: number('Bank', 0, 'Turns all of it about the path.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    size: number('Size across', 100, 'Of the form square to the path.', {
      unit: '%',
      min: 0,
      max: 10_000,
      soft: [0, 200],
      step: 1,
    }),
    ...regionParams,
  },
  summary: (v) => `${v.axis.toUpperCase()} along, ${brief(v.twist)} turns`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const p = input.positions;
    const bounds = boundsOf(p);
    if (!bounds) return input;
    const other = context.other?.('other');
    const line = other && polylinesOf(other.connectivity)[0];
    if (!other || !line)
      throw new StepProblem('Along a path needs a ribbon that is a curve; name one, such as a Curve or an Outline.');
    const path = pathAlong(other.positions, pointsOf(other.positions, line), line.closed);
    if (path.length === 0) throw new StepProblem('The path has no length; make it larger.');
    const s = AXES[v.axis];
    const [u, w] = [(s + 1) % 3, (s + 2) % 3];
    const length = bounds.max[s] - bounds.min[s] || 1;
    const scale = v.fit === 'whole' ? path.length / length : 1;
    const begin = (v.at / 100) * path.length;
    const out = new Float32Array(p.length);
    for (let i = 0; i < p.length; i += 3) {
      const share = (p[i + s] - bounds.min[s]) / length;
      const { point, tangent: t, normal: n } = path.at(begin + share * length * scale);
      const a = (v.bank * Math.PI) / 180 + 2 * Math.PI * v.twist * share;
      const [c, d] = [Math.cos(a), Math.sin(a)];
      const k = v.size / 100;
      // The first cross direction follows the normal, the second t × n.
      const [x, y] = [k * (c * p[i + u] - d * p[i + w]), k * (d * p[i + u] + c * p[i + w])];
      const b = [t[1] * n[2] - t[2] * n[1], t[2] * n[0] - t[0] * n[2], t[0] * n[1] - t[1] * n[0]];
      for (let q = 0; q < 3; q++) out[i + q] = point[q] + x * n[q] + y * b[q];
    }
    return { connectivity: input.connectivity, positions: limited(v, input, out, context) };
  },
});
