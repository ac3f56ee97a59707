import { choice, number, points, vector } from '../../declare/params';
import { splineThrough } from '../../shape/closed-path';
import { closedTube } from '../../shape/tube';
import { brief, checkFaces, defineStep } from '../step';

const TURN = 2 * Math.PI;

/** A round pipe along one of the closed curves of geometry, or along one of your own. */
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
    size: number('Size', 1.2, 'Radius of the curve as a whole.', { unit: 'm', min: 0, max: 1000, soft: [0, 4], shownWhen: { param: 'curve', is: ['knot', 'lissajous', 'eight', 'coil', 'rose'] } }),
    depth: number('Depth', 0.45, 'How far it leaves the ring or the plane.', { unit: 'm', min: 0, max: 1000, soft: [0, 2], shownWhen: { param: 'curve', is: ['knot', 'eight', 'coil', 'rose'] } }),
    p: number('Turns round the axis', 2, 'How often a knot goes round the ring.', { min: 1, max: 60, soft: [1, 12], integer: true, shownWhen: { param: 'curve', is: ['knot'] } }),
    q: number('Turns round the pipe', 3, 'How often it goes through the hole, or the turns of a coil, or the petals of a rose.', { min: 1, max: 200, soft: [1, 24], integer: true, shownWhen: { param: 'curve', is: ['knot', 'coil', 'rose'] } }),
    frequencies: vector('Swings', [2, 3, 1], 'How often it swings along x, y and z.', { min: 0, max: 60, soft: [0, 8], integer: true, shownWhen: { param: 'curve', is: ['lissajous'] } }),
    phases: vector('Phases', [0, 90, 45], 'Where each swing begins.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [0, 360], step: 1, shownWhen: { param: 'curve', is: ['lissajous'] } }),
    points: points('Points', [[1.4, 0, 0], [0.6, 0.6, 1.2], [-1.1, -0.4, 0.8], [-1.2, 0.5, -0.8], [0.5, -0.5, -1.2]], 'The closed curve goes through them in this order.', { shownWhen: { param: 'curve', is: ['drawn'] } }),
    thickness: number('Thickness', 0.18, 'Radius of the pipe.', { unit: 'm', min: 0, max: 1000, soft: [0, 1] }),
    along: number('Rings', 240, 'Faces along the curve.', { min: 3, max: 5000, soft: [12, 600], integer: true }),
    round: number('Round', 18, 'Faces round the pipe.', { min: 3, max: 500, soft: [3, 64], integer: true }),
  },
  summary: (v) => `${v.curve === 'knot' ? `knot ${v.p}, ${v.q}` : v.curve} · ${brief(v.thickness)} m`,
  evaluate(v) {
    checkFaces(v.along * v.round, 'Use fewer rings or faces round the pipe.');
    return closedTube(curveOf(v), () => v.thickness, v.along, v.round);
  },
});

interface Curve {
  readonly curve: string;
  readonly size: number;
  readonly depth: number;
  readonly p: number;
  readonly q: number;
  readonly frequencies: readonly [number, number, number];
  readonly phases: readonly [number, number, number];
  readonly points: readonly (readonly [number, number, number])[];
}

function curveOf(v: Curve): (u: number) => [number, number, number] {
  const { size: r, depth: d } = v;
  switch (v.curve) {
    case 'knot':
      // On a torus about y: p times round the axis while q times round the pipe.
      return (u) => {
        const [a, b] = [TURN * v.p * u, TURN * v.q * u];
        const w = r + d * Math.cos(b);
        return [w * Math.cos(a), d * Math.sin(b), w * Math.sin(a)];
      };
    case 'coil':
      return (u) => {
        const [a, b] = [TURN * u, TURN * v.q * u];
        const w = r + d * Math.cos(b);
        return [w * Math.cos(a), d * Math.sin(b), w * Math.sin(a)];
      };
    case 'eight':
      // Gerono's lemniscate, lifted so that it does not cut itself.
      return (u) => [r * Math.sin(TURN * u), d * Math.cos(TURN * u), r * Math.sin(TURN * u) * Math.cos(TURN * u)];
    case 'rose':
      return (u) => {
        const a = TURN * u;
        const w = r * (0.6 + 0.4 * Math.cos(v.q * a));
        return [w * Math.cos(a), d * Math.sin(v.q * a), w * Math.sin(a)];
      };
    case 'lissajous':
      return (u) => [0, 1, 2].map((k) => r * Math.sin(TURN * v.frequencies[k] * u + (v.phases[k] * Math.PI) / 180)) as [number, number, number];
    default:
      return splineThrough(v.points);
  }
}
