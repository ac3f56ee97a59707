import { choice, number, toggle } from '../../declare/params';
import { movedOn } from '../../copies/move-on';
import { axisAngle, matrixOf, sinCosDegrees, type Quaternion } from '../../maths/quaternion';
import { brief, defineStep } from '../step';
import { movingSeam } from './moving-seam';
import { checkCopies, repeated, repeatParams, repeatsLater } from './common';

/** Rotates a ring about y into another plane. */
const PLANES: Record<'y' | 'x' | 'z', Quaternion> = {
  y: [0, 0, 0, 1],
  x: axisAngle([0, 0, 1], -90),
  z: axisAngle([1, 0, 0], 90),
};

/** The golden angle, π (3 − √5), in degrees: no two copies ever line up. */
const GOLDEN = 180 * (3 - Math.sqrt(5));

/** Number of copies on each ring, innermost first. */
function ringsOf({
  rings,
  count,
  more,
}: {
  readonly rings: number;
  readonly count: number;
  readonly more: number;
}): number[] {
  return Array.from({ length: rings }, (_, r) => count + r * more);
}

/** Copies on rings, spirals and sunflower heads. */
export const repeatRings = defineStep({
  kind: 'repeat-rings',
  title: 'Rings',
  help: 'Repeats the form on rings, a spiral or helix, or like seeds in a sunflower.',
  icon: 'repeat-rings',
  group: 'repeat',
  params: {
    shape: choice(
      'Laid out as',
      'ring',
      [
        { value: 'ring', title: 'Rings' },
        { value: 'spiral', title: 'Spiral' },
        { value: 'seeds', title: 'Seeds' },
      ],
      'Rings round each other, one line winding outwards, or seeds at the golden angle.',
    ),
    count: number('Count', 12, 'Copies on a ring, or on the whole spiral.', {
      unit: 'copies',
      min: 1,
      max: 1_000_000,
      soft: [1, 60],
      integer: true,
    }),
    rings: number('Rings', 1, 'How many rings round each other.', {
      min: 1,
      max: 1000,
      soft: [1, 12],
      integer: true,
      shownWhen: { param: 'shape', is: ['ring'] },
    }),
    more: number('More outwards', 0, 'Copies that each ring has more than the one inside it.', {
      min: 0,
      max: 1000,
      soft: [0, 12],
      integer: true,
      shownWhen: { param: 'shape', is: ['ring'] },
    }),
    radius: number('Radius', 1.5, 'Of the first ring, or where the spiral begins.', {
      unit: 'm',
      min: 0,
      max: 10_000,
      soft: [0, 5],
    }),
    gap: number('Gap', 0.8, 'From ring to ring, between turns of the spiral, or from seed to seed.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [0, 2],
    }),
    windings: number('Turns', 2, 'How often the spiral goes round.', {
      unit: 'turns',
      min: 0.01,
      max: 1000,
      soft: [0.5, 8],
      step: 0.25,
      shownWhen: { param: 'shape', is: ['spiral'] },
    }),
    rise: number('Rise', 0, 'Along the axis, from the first copy to the last, or from ring to ring.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
    }),
    angle: number('Angle', 0, 'Turns all of it about its axis.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
    }),
    about: choice(
      'About',
      'y',
      [
        { value: 'y', title: 'Y' },
        { value: 'x', title: 'X' },
        { value: 'z', title: 'Z' },
      ],
      'The axis it goes round.',
    ),
    turned: toggle('Outwards', true, 'Turns each copy so that its X axis points outwards.'),
    advance: number('Move on', 0, 'Places by which the copies move on in a loop; whole numbers look closed.', {
      unit: '/loop',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
      step: 1,
      counts: true,
      shownWhen: { param: 'shape', is: ['ring'] },
    }),
    ...repeatParams,
  },
  summary: (v) =>
    v.shape === 'ring'
      ? `${v.rings > 1 ? `${v.rings} rings of ` : ''}${v.count} · ${brief(v.radius)} m`
      : `${v.count} · ${v.shape === 'spiral' ? `${brief(v.windings)} turns` : 'seeds'}`,
  reads: {
    copies: true,
    detail: true,
    clock: (v) => v.shape === 'ring' && v.advance !== 0,
    loop: (v) => repeatsLater(v),
  },
  seam: (v, frames) =>
    v.shape === 'ring' ? movingSeam(v, ringsOf(v), frames, v.rings === 1 ? 'count' : undefined) : null,
  evaluate(v, input, context) {
    const rings = v.shape === 'ring' ? ringsOf(v) : [v.count];
    const n = rings.reduce((a, b) => a + b, 0);
    checkCopies(n, 'Use fewer.');
    const [at, order] = [new Float32Array(3 * n), new Float32Array(n)];
    const turns = v.turned || v.about !== 'y' ? new Float32Array(4 * n) : undefined;
    const plane = PLANES[v.about];
    const m = matrixOf(plane);
    let o = 0;
    const put = (radius: number, degrees: number, height: number, place: number) => {
      const a = (degrees + v.angle) % 360;
      const [s, c] = sinCosDegrees(a);
      const x = radius * c;
      const z = -radius * s;
      for (let k = 0; k < 3; k++) at[3 * o + k] = m[3 * k] * x + m[3 * k + 1] * height + m[3 * k + 2] * z;
      if (turns && v.turned) {
        // The plane's rotation after one about y by a, written out.
        const [h, g] = sinCosDegrees(a / 2, 720);
        turns[4 * o] = plane[0] * g - plane[2] * h;
        turns[4 * o + 1] = plane[1] * g + plane[3] * h;
        turns[4 * o + 2] = plane[2] * g + plane[0] * h;
        turns[4 * o + 3] = plane[3] * g - plane[1] * h;
      } else if (turns) turns[4 * o + 3] = 1;
      order[o++] = place;
    };
    if (v.shape === 'ring') {
      let before = 0;
      rings.forEach((count, r) => {
        const place = movedOn(v.advance, count, context.clock);
        for (let i = 0; i < count; i++) {
          const x = place(i);
          put(v.radius + r * v.gap, (360 * x) / count, r * v.rise, before + x);
        }
        before += count;
      });
    } else
      for (let i = 0; i < n; i++) {
        const share = n > 1 ? i / (n - 1) : 0;
        if (v.shape === 'spiral')
          put(v.radius + share * v.windings * v.gap, 360 * v.windings * share, share * v.rise, i);
        else put(v.radius + v.gap * Math.sqrt(i), GOLDEN * i, share * v.rise, i);
      }
    return repeated(v, input, { at, order, places: n, ...(turns ? { turns } : {}) }, context);
  },
});
