import { choice, number } from '../../declare/params';
import { lathe } from '../../shape/lathe';
import { outlineCount, outlineRadius } from '../../shape/outline';
import { brief, checkFaces, defineStep } from '../step';

/** An outline with depth and bevelled rims: polygons, stars, roses, rounded squares. */
export const medal = defineStep({
  kind: 'medal',
  title: 'Medal',
  help: 'A polygon, star, rose or rounded square given depth, with bevelled rims.',
  icon: 'medal',
  group: 'form',
  params: {
    outline: choice(
      'Outline',
      'star',
      [
        { value: 'polygon', title: 'Polygon' },
        { value: 'star', title: 'Star' },
        { value: 'rose', title: 'Rose' },
        { value: 'superellipse', title: 'Superellipse' },
      ],
      'The outline, as seen from above.',
    ),
    radius: number('Radius', 1.2, 'From the middle to the farthest points.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
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
    depth: number('Depth', 0.5, 'From side to side.', { unit: 'm', min: 0, max: 1000, soft: [0, 3] }),
    bevel: number('Bevel', 0.08, 'How far its rims are taken in.', { unit: 'm', min: 0, max: 1000, soft: [0, 0.5] }),
    profile: choice(
      'Bevel form',
      'round',
      [
        { value: 'round', title: 'Round' },
        { value: 'flat', title: 'Flat' },
        { value: 'hollow', title: 'Hollow' },
      ],
      'How the rim is taken in.',
    ),
    steps: number('Bevel steps', 4, 'Faces across the bevel.', { min: 1, max: 60, soft: [1, 12], integer: true }),
    along: number('Along', 20, 'Faces along each side, petal or quarter.', {
      min: 1,
      max: 500,
      soft: [1, 48],
      integer: true,
    }),
    rows: number('Rows', 2, 'Faces across the depth.', { min: 1, max: 500, soft: [1, 24], integer: true }),
    rings: number('Rings', 6, 'Faces from the bevel to the middle.', {
      min: 1,
      max: 300,
      soft: [1, 32],
      integer: true,
    }),
  },
  summary: (v) =>
    `${v.outline}${v.outline === 'superellipse' ? '' : ` of ${v.points}`} · ${brief(v.radius)} × ${brief(v.depth)} m`,
  evaluate(v) {
    // Even for stars, so that a vertex stands on every tip and notch.
    const sides = outlineCount(v, v.along);
    checkFaces(sides * (v.rows + 2 * v.steps + 2 * v.rings), 'Use fewer faces along, rows or rings.');
    const bevel = Math.min(v.bevel, v.depth / 2, v.radius * 0.5);
    const half = v.depth / 2;
    const inset = (x: number) =>
      v.profile === 'round'
        ? 1 - Math.sqrt(Math.max(0, 1 - x * x))
        : v.profile === 'flat'
          ? x
          : 1 - Math.sqrt(Math.max(0, 1 - (1 - x) ** 2));
    // Rims are inset by scaling towards the centre, which keeps tips sharp.
    const rows: { scale: number; y: number; group: number }[] = [];
    for (let k = 0; k < v.rings; k++)
      rows.push({ scale: (1 - bevel / v.radius || 0) * (k / v.rings), y: -half, group: 1 });
    for (let k = v.steps; k > 0 && bevel > 0; k--)
      rows.push({ scale: 1 - (bevel / v.radius) * inset(k / v.steps), y: -half + bevel * (1 - k / v.steps), group: 0 });
    for (let k = 0; k < v.rows; k++)
      rows.push({ scale: 1, y: -half + bevel + ((v.depth - 2 * bevel) * k) / v.rows, group: 0 });
    for (let k = 0; k < v.steps && bevel > 0; k++)
      rows.push({ scale: 1 - (bevel / v.radius) * inset(k / v.steps), y: half - bevel * (1 - k / v.steps), group: 0 });
    for (let k = v.rings; k >= 0; k--)
      rows.push({ scale: (1 - bevel / v.radius || 0) * (k / v.rings), y: half, group: 2 });
    const mesh = lathe(
      rows.map(({ scale, y, group }) => ({ r: v.radius * scale, y, group })),
      sides,
    );
    // A revolved profile makes it round; every column is then scaled to the outline.
    const positions = mesh.positions.slice();
    const factors = Array.from({ length: sides }, (_, i) => outlineRadius(v, i / sides));
    const ringed = positions.length / 3 - 2;
    for (let i = 0; i < ringed; i++) {
      positions[3 * i] *= factors[i % sides];
      positions[3 * i + 2] *= factors[i % sides];
    }
    return { connectivity: mesh.connectivity, positions };
  },
});
