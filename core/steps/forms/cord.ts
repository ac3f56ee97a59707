import { choice, number, points, vector } from '../../declare/params';
import { closedCurve } from '../../shape/curves/known';
import { closedTube } from '../../shape/tube';
import { brief, checkFaces, defineStep } from '../step';

/** A round tube along a classic closed curve, or along one given by formulas. */
export const cord = defineStep({
  kind: 'cord',
  title: 'Cord',
  help: 'A pipe along a closed curve: knots, figure eights, coils, roses, or your own.',
  icon: 'cord',
  group: 'form',
  params: {
    curve: choice(
      'Curve',
      'knot',
      [
        { value: 'knot', title: 'Torus knot' },
        { value: 'lissajous', title: 'Lissajous curve' },
        { value: 'eight', title: 'Figure eight' },
        { value: 'coil', title: 'Closed coil' },
        { value: 'rose', title: 'Rose' },
        { value: 'drawn', title: 'Drawn' },
      ],
      'Which curve it follows.',
    ),
    size: number('Size', 1.2, 'Radius of the curve as a whole.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
      shownWhen: { param: 'curve', is: ['knot', 'lissajous', 'eight', 'coil', 'rose'] },
    }),
    depth: number('Depth', 0.45, 'How far it leaves the ring or the plane.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 2],
      shownWhen: { param: 'curve', is: ['knot', 'eight', 'coil', 'rose'] },
    }),
    p: number('Turns round the axis', 2, 'How often a knot goes round the ring.', {
      min: 1,
      max: 60,
      soft: [1, 12],
      integer: true,
      shownWhen: { param: 'curve', is: ['knot'] },
    }),
    q: number(
      'Turns round the pipe',
      3,
      'How often it goes through the hole, or the turns of a coil, or the petals of a rose.',
      { min: 1, max: 200, soft: [1, 24], integer: true, shownWhen: { param: 'curve', is: ['knot', 'coil', 'rose'] } },
    ),
    frequencies: vector('Swings', [2, 3, 1], 'How often it swings along x, y and z.', {
      min: 0,
      max: 60,
      soft: [0, 8],
      integer: true,
      shownWhen: { param: 'curve', is: ['lissajous'] },
    }),
    phases: vector('Phases', [0, 90, 45], 'Where each swing begins.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [0, 360],
      step: 1,
      shownWhen: { param: 'curve', is: ['lissajous'] },
    }),
    points: points(
      'Points',
      [
        [1.4, 0, 0],
        [0.6, 0.6, 1.2],
        [-1.1, -0.4, 0.8],
        [-1.2, 0.5, -0.8],
        [0.5, -0.5, -1.2],
      ],
      'The closed curve goes through them in this order.',
      { shownWhen: { param: 'curve', is: ['drawn'] }, handle: 'points' },
    ),
    thickness: number('Thickness', 0.18, 'Radius of the pipe.', { unit: 'm', min: 0, max: 1000, soft: [0, 1] }),
    along: number('Rings', 240, 'Faces along the curve.', { min: 3, max: 5000, soft: [12, 600], integer: true }),
    round: number('Round', 18, 'Faces round the pipe.', { min: 3, max: 500, soft: [3, 64], integer: true }),
  },
  summary: (v) => `${v.curve === 'knot' ? `knot ${v.p}, ${v.q}` : v.curve} · ${brief(v.thickness)} m`,
  evaluate(v) {
    checkFaces(v.along * v.round, 'Use fewer rings or faces round the pipe.');
    return closedTube(closedCurve(v), () => v.thickness, v.along, v.round);
  },
});
