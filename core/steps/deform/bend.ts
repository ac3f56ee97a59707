import type { Vec3 } from '../../maths/vec3';
import { choice, number } from '../../declare/params';
import { brief, defineStep } from '../step';
import { AXES, axisOptions, inPivot, pivotParams, type Axis } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** The axis of a bend: perpendicular to its length and to its direction. */
function bendAxis(along: string, towards: number): Vec3 {
  const s = 'xyz'.indexOf(along);
  const way = (towards * Math.PI) / 180;
  const axis: [number, number, number] = [0, 0, 0];
  axis[(s + 2) % 3] = Math.cos(way);
  axis[(s + 1) % 3] = -Math.sin(way);
  return axis;
}

/** Bends the form: its centre line becomes an arc of the same length. */
export const bend = defineStep({
  kind: 'bend',
  title: 'Bend',
  help: 'Curves the form along its length.',
  icon: 'bend',
  group: 'deform',
  params: {
    angle: number('Angle', 60, 'Turn from one end to the other.', {
      unit: '°',
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
      handle: { about: 'pivot', turn: 'pivotTurn', axis: (v) => bendAxis(v.along as string, v.towards as number) },
    }),
    along: choice('Along', 'y', axisOptions, 'The length that is bent.'),
    towards: number('Towards', 0, 'Which way it bends, round that length.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    hold: choice(
      'Hold',
      'middle',
      [
        { value: 'start', title: 'Start' },
        { value: 'middle', title: 'Middle' },
        { value: 'end', title: 'End' },
      ],
      'The place that stays where it is.',
    ),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.angle)}° along ${v.along.toUpperCase()}`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    if (v.angle === 0) return input;
    const to = inPivot(v, input.positions, (p, reach) => {
      const s = AXES[v.along as Axis];
      const [u, w] = [(s + 1) % 3, (s + 2) % 3];
      const { low, high } = reach(s) ?? { low: 0, high: 0 };
      const length = high - low;
      if (length === 0) return p;
      const fixed = v.hold === 'start' ? low : v.hold === 'end' ? high : (low + high) / 2;
      const rate = (v.angle * Math.PI) / 180 / length;
      const radius = 1 / rate;
      const way = (v.towards * Math.PI) / 180;
      const [c, d] = [Math.cos(way), Math.sin(way)];
      const out = new Float32Array(p.length);
      for (let i = 0; i < p.length; i += 3) {
        // q points towards the bend, r across; the arc's centre is at q = radius.
        const q = c * p[i + u] + d * p[i + w];
        const r = c * p[i + w] - d * p[i + u];
        const a = (p[i + s] - fixed) * rate;
        const bent = radius - (radius - q) * Math.cos(a);
        out[i + s] = fixed + (radius - q) * Math.sin(a);
        out[i + u] = c * bent - d * r;
        out[i + w] = d * bent + c * r;
      }
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
