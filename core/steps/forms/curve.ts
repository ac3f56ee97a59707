import { choice, number, points, vector } from '../../declare/params';
import { curvesMesh } from '../../shape/curves/curves';
import { closedCurve } from '../../shape/curves/known';
import { brief, defineStep } from '../step';

const CLOSED = ['knot', 'lissajous', 'eight', 'coil', 'rose', 'ring', 'drawn'];

/** A curve in space, as a path to sweep along or a wire to draw. */
export const curve = defineStep({
  kind: 'curve',
  title: 'Curve',
  help: 'A knot, figure eight, coil, helix, arc or a path of your own, to sweep something along or draw as wire.',
  icon: 'curve',
  group: 'form',
  params: {
    curve: choice(
      'Curve',
      'lissajous',
      [
        { value: 'lissajous', title: 'Lissajous curve' },
        { value: 'knot', title: 'Torus knot' },
        { value: 'eight', title: 'Figure eight' },
        { value: 'coil', title: 'Closed coil' },
        { value: 'rose', title: 'Rose' },
        { value: 'ring', title: 'Ring' },
        { value: 'helix', title: 'Helix' },
        { value: 'arc', title: 'Arc' },
        { value: 'line', title: 'Line' },
        { value: 'drawn', title: 'Drawn' },
      ],
      'Which curve; all but helix, arc and line are closed.',
    ),
    size: number('Size', 1.2, 'Radius of the curve as a whole, or half its length.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
      shownWhen: { param: 'curve', is: ['knot', 'lissajous', 'eight', 'coil', 'rose', 'ring', 'helix', 'arc', 'line'] },
    }),
    depth: number('Depth', 0.45, 'How far it leaves the ring or the plane; the height of a helix.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 3],
      shownWhen: { param: 'curve', is: ['knot', 'eight', 'coil', 'rose', 'helix'] },
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
    turns: number('Turns', 4, 'How often a helix goes round, or which part of the round an arc takes.', {
      unit: 'turns',
      min: 0.01,
      max: 200,
      soft: [0.1, 12],
      step: 0.05,
      shownWhen: { param: 'curve', is: ['helix', 'arc'] },
    }),
    narrows: number('Narrows', 0, 'How much narrower a helix is at its top.', {
      unit: '%',
      min: -500,
      max: 100,
      soft: [0, 100],
      step: 1,
      shownWhen: { param: 'curve', is: ['helix'] },
    }),
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
    along: number('Points along', 200, 'Points it is drawn with.', {
      min: 2,
      max: 5000,
      soft: [12, 600],
      integer: true,
    }),
  },
  summary: (v) => `${v.curve === 'knot' ? `knot ${v.p}, ${v.q}` : v.curve} · ${brief(v.size)} m`,
  evaluate(v) {
    const closed = CLOSED.includes(v.curve);
    const count = closed ? Math.max(3, v.along) : v.along;
    const at = curveAt(v);
    return curvesMesh([
      { points: Array.from({ length: count }, (_, i) => at(i / (closed ? count : count - 1))).flat(), closed },
    ]);
  },
});

type Settings = Parameters<typeof closedCurve>[0] & { readonly turns: number; readonly narrows: number };

function curveAt(v: Settings): (u: number) => [number, number, number] {
  const r = v.size;
  switch (v.curve) {
    case 'helix':
      return (u) => {
        const a = 2 * Math.PI * v.turns * u;
        const w = r * (1 - (u * v.narrows) / 100);
        return [w * Math.cos(a), v.depth * (u - 0.5), w * Math.sin(a)];
      };
    case 'arc':
      return (u) => {
        const a = 2 * Math.PI * v.turns * u;
        return [r * Math.cos(a), 0, r * Math.sin(a)];
      };
    case 'ring':
      return (u) => [r * Math.cos(2 * Math.PI * u), 0, r * Math.sin(2 * Math.PI * u)];
    case 'line':
      return (u) => [r * (2 * u - 1), 0, 0];
    default:
      return closedCurve(v);
  }
}
