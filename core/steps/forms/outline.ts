import { choice, number } from '../../declare/params';
import { curvesMesh } from '../../shape/curves/curves';
import { outlineCount, outlinePoints } from '../../shape/outline';
import { brief, defineStep } from '../step';

export const outlineParams = {
  outline: choice(
    'Outline',
    'star',
    [
      { value: 'circle', title: 'Circle' },
      { value: 'polygon', title: 'Polygon' },
      { value: 'star', title: 'Star' },
      { value: 'rose', title: 'Rose' },
      { value: 'superellipse', title: 'Superellipse' },
    ],
    'Which outline.',
  ),
  points: number('Points', 5, 'Corners, tips or petals.', {
    min: 2,
    max: 200,
    soft: [3, 24],
    integer: true,
    shownWhen: { param: 'outline', is: ['polygon', 'star', 'rose'] },
  }),
  inner: number('Inner', 55, 'Radius of the notches, as a share of that of the tips.', {
    unit: '%',
    min: 1,
    max: 100,
    soft: [5, 100],
    step: 1,
    shownWhen: { param: 'outline', is: ['star', 'rose'] },
  }),
  exponent: number('Exponent', 4, '2 is a circle, more is nearer to a square, below 1 it is a star.', {
    min: 0.2,
    max: 40,
    soft: [0.5, 10],
    step: 0.1,
    shownWhen: { param: 'outline', is: ['superellipse'] },
  }),
  rounding: number('Rounding', 0, 'Softens corners and tips.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    shownWhen: { param: 'outline', is: ['polygon', 'star'] },
  }),
} as const;

/** A plane outline: a closed curve that other steps turn into a body. */
export const outline = defineStep({
  kind: 'outline',
  title: 'Outline',
  help: 'A circle, polygon, star, rose or rounded square as a flat curve, to extrude, revolve or loft.',
  icon: 'outline',
  group: 'form',
  params: {
    ...outlineParams,
    radius: number('Radius', 1.2, 'From the middle to the farthest points.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
    hole: number('Hole', 0, 'The same outline again inside, as a share of the first; 0 leaves it out.', {
      unit: '%',
      min: 0,
      max: 95,
      soft: [0, 90],
      step: 1,
    }),
    along: number('Along', 16, 'Points along each side, petal or quarter.', {
      min: 1,
      max: 500,
      soft: [1, 48],
      integer: true,
    }),
    facing: choice(
      'Facing',
      'up',
      [
        { value: 'up', title: 'Up' },
        { value: 'front', title: 'Front' },
        { value: 'side', title: 'Side' },
      ],
      'Which way it looks: along y, z or x.',
    ),
    aside: number('Aside', 0, 'Moves it away from the middle, for a revolution that leaves a hole.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
    }),
  },
  summary: (v) =>
    `${v.outline}${v.outline === 'superellipse' || v.outline === 'circle' ? '' : ` of ${v.points}`} · ${brief(v.radius)} m`,
  evaluate(v) {
    const flat = outlinePoints(v, outlineCount(v, v.along));
    const place = (x: number, y: number): [number, number, number] =>
      v.facing === 'up' ? [x + v.aside, 0, -y] : v.facing === 'front' ? [x + v.aside, y, 0] : [0, y, -x - v.aside];
    const lines = [{ points: flat.flatMap(([x, y]) => place(v.radius * x, v.radius * y)), closed: true }];
    const inside = (v.radius * v.hole) / 100;
    if (inside > 0)
      lines.push({ points: [...flat].reverse().flatMap(([x, y]) => place(inside * x, inside * y)), closed: true });
    return curvesMesh(lines);
  },
});
