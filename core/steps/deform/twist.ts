import { choice, number } from '../../declare/params';
import { brief, defineStep } from '../step';
import { AXES, inPivot, pivotParams } from './frame';
import { limited, regionMoves, regionParams } from './region';

const AXIS = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;

/** Rotates cross-sections about an axis, in proportion to their position along it. */
export const twist = defineStep({
  kind: 'twist',
  title: 'Twist',
  help: 'Wrings the form about an axis.',
  icon: 'twist',
  group: 'deform',
  params: {
    angle: number('Angle', 90, 'Turn from one end of the reach to the other.', {
      unit: '°',
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
      handle: { about: 'pivot', turn: 'pivotTurn', axis: (v) => AXIS[v.axis as keyof typeof AXIS] ?? AXIS.y },
    }),
    axis: choice(
      'Axis',
      'y',
      [
        { value: 'x', title: 'X' },
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
      ],
      'The line it turns about, through the origin.',
    ),
    reach: choice(
      'Reach',
      'form',
      [
        { value: 'form', title: 'Whole form' },
        { value: 'length', title: 'A length' },
      ],
      'Over which length the angle builds up.',
    ),
    length: number('Length', 2, 'Length over which the angle builds up; the twist goes on beyond it.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.1, 6],
      shownWhen: { param: 'reach', is: ['length'] },
    }),
    centre: number('Centre', 0, 'Place along the axis that does not turn.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-2, 2],
      shownWhen: { param: 'reach', is: ['length'] },
    }),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.angle)}° about ${v.axis.toUpperCase()}`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    if (v.angle === 0) return input;
    const to = inPivot(v, input.positions, (from, reach) => {
      const s = AXES[v.axis];
      const [u, w] = [(s + 1) % 3, (s + 2) % 3];
      const whole = v.reach === 'form' ? reach(s) : null;
      const length = whole ? whole.high - whole.low : v.length;
      if (length === 0) return from;
      const centre = whole ? (whole.low + whole.high) / 2 : v.centre;
      const rate = (v.angle * Math.PI) / 180 / length;
      const out = new Float32Array(from.length);
      for (let i = 0; i < from.length; i += 3) {
        const a = (from[i + s] - centre) * rate;
        const c = Math.cos(a);
        const sn = Math.sin(a);
        const [p, q] = [from[i + u], from[i + w]];
        out[i + s] = from[i + s];
        out[i + u] = c * p - sn * q;
        out[i + w] = sn * p + c * q;
      }
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
