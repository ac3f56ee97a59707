import { choice, number, ribbon, toggle } from '../../declare/params';
import { fromAxes, standing } from '../../copies/basis';
import { endSize, movedOn } from '../../copies/move-on';
import { pathAlong } from '../../shape/curves/along-path';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { axisAngle, multiply } from '../../maths/quaternion';
import { brief, defineStep, StepProblem } from '../step';
import { movingSeam } from './moving-seam';
import { checkCopies, repeated, repeatParams, repeatsLater } from './common';

/** Copies along the curves of another ribbon, evenly by arc length. */
export const repeatPath = defineStep({
  kind: 'repeat-path',
  title: 'On a path',
  help: 'Repeats the form along the curves of another ribbon, evenly by length.',
  icon: 'repeat-path',
  group: 'repeat',
  params: {
    other: ribbon('Path', 'A ribbon whose curves are the paths.', { serves: true }),
    by: choice(
      'Spread by',
      'count',
      [
        { value: 'count', title: 'Count' },
        { value: 'spacing', title: 'Spacing' },
      ],
      'So many on each curve, or as many as fit at a distance.',
    ),
    count: number('Count', 24, 'On each curve.', {
      unit: 'copies',
      min: 1,
      max: 1_000_000,
      soft: [1, 120],
      integer: true,
      shownWhen: { param: 'by', is: ['count'] },
    }),
    spacing: number('Spacing', 0.25, 'Along the curve, evened out so that it fits.', {
      unit: 'm',
      min: 0.0001,
      max: 10_000,
      soft: [0.02, 2],
      shownWhen: { param: 'by', is: ['spacing'] },
    }),
    from: number('From', 0, 'Share of the curve at which they begin.', {
      unit: '%',
      cyclic: 100,
      min: -10_000,
      max: 10_000,
      soft: [-100, 100],
      step: 0.5,
    }),
    to: number('Up to', 100, 'Share of the curve they cover, from where they begin.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 0.5,
    }),
    turned: choice(
      'Turned',
      'ahead',
      [
        { value: 'ahead', title: 'Ahead' },
        { value: 'upright', title: 'Ahead, upright' },
        { value: 'no', title: 'Not' },
      ],
      'X points along the path; Y turns with it as little as possible, or stays up.',
    ),
    bank: number('Bank', 0, 'Turns about the path.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    twist: number('Twist', 0, 'Turns about the path from one end to the other; whole ones join round a closed one.', {
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [-4, 4],
      step: 0.25,
    }),
    off: number('Off the path', 0, 'Along each copy’s own Y.', { unit: 'm', min: -1000, max: 1000, soft: [-1, 1] }),
    advance: number('Move on', 0, 'Places by which the copies move on in a loop; whole numbers look closed.', {
      unit: '/loop',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
      step: 1,
      counts: true,
    }),
    ends: toggle(
      'Grow at the ends',
      true,
      'On an open path, copies that move on grow in at one end and shrink at the other.',
    ),
    ...repeatParams,
  },
  summary: (v) =>
    `${v.by === 'count' ? `${v.count} copies` : `every ${brief(v.spacing)} m`}${v.advance ? `, ${brief(v.advance)} on` : ''}`,
  reads: { copies: true, detail: true, clock: (v) => v.advance !== 0, loop: (v) => repeatsLater(v) },
  seam: (v, frames) => (v.by === 'count' ? movingSeam(v, [v.count], frames, 'count') : null),
  evaluate(v, input, context) {
    const other = context.other?.('other');
    const lines = other ? polylinesOf(other.connectivity) : [];
    if (!other || lines.length === 0)
      throw new StepProblem(
        'On a path needs a ribbon that is a curve; name one, such as a Curve, an Outline or a Text.',
      );
    const [at, turns, order, sizes]: number[][] = [[], [], [], []];
    let before = 0;
    for (const line of lines) {
      const path = pathAlong(other.positions, pointsOf(other.positions, line), line.closed, line.vertices[0]);
      if (path.length === 0) continue;
      const covered = (path.length * v.to) / 100;
      const round = line.closed && v.to === 100;
      const n = v.by === 'count' ? v.count : Math.max(1, Math.round(covered / v.spacing) + (round ? 0 : 1));
      checkCopies(before + n, v.by === 'count' ? 'Use fewer.' : 'Use a larger spacing.');
      const place = movedOn(v.advance, n, context.clock);
      for (let i = 0; i < n; i++) {
        const x = place(i);
        const share = round ? x / n : n > 1 ? x / (n - 1) : 0;
        // On an open path the last place leads off the end, where the copy has shrunk to nothing.
        const { point, tangent: t, normal: u } = path.at((path.length * v.from) / 100 + covered * share);
        const b = [t[1] * u[2] - t[2] * u[1], t[2] * u[0] - t[0] * u[2], t[0] * u[1] - t[1] * u[0]] as const;
        const frame =
          v.turned === 'no'
            ? ([0, 0, 0, 1] as const)
            : v.turned === 'ahead'
              ? fromAxes(t, u, b)
              : multiply(standing([0, 1, 0], t), lean(t));
        const q = multiply(frame, axisAngle([1, 0, 0], (v.bank + 360 * v.twist * (round ? x / n : share)) % 360));
        const y = [
          2 * (q[0] * q[1] - q[2] * q[3]),
          1 - 2 * (q[0] * q[0] + q[2] * q[2]),
          2 * (q[1] * q[2] + q[0] * q[3]),
        ];
        for (let k = 0; k < 3; k++) at.push(point[k] + v.off * y[k]);
        turns.push(...q);
        order.push(before + x);
        sizes.push(round || !v.ends || v.advance === 0 ? 1 : endSize(x, n));
      }
      before += n;
    }
    return repeated(
      v,
      input,
      {
        at: Float32Array.from(at),
        turns: Float32Array.from(turns),
        order: Float32Array.from(order),
        sizes: Float32Array.from(sizes),
        places: before,
      },
      context,
    );
  },
});

/** Elevation of a direction as a rotation about z, after its heading on the ground. */
function lean(t: readonly [number, number, number]): readonly [number, number, number, number] {
  return axisAngle([0, 0, 1], (Math.asin(Math.max(-1, Math.min(1, t[1]))) * 180) / Math.PI);
}
