import { choice, number } from '../../declare/params';
import { capped, extruded } from '../../shape/curves/extrude';
import { brief, checkFaces, defineStep, StepProblem } from '../step';

/** Gives flat outlines depth, with profiled rims. */
export const extrude = defineStep({
  kind: 'extrude',
  title: 'Extrude',
  help: 'Gives flat outlines depth, with bevelled rims; outlines inside others are holes.',
  icon: 'extrude',
  group: 'curve',
  needs: 'curves',
  params: {
    depth: number('Depth', 0.5, 'From side to side.', { unit: 'm', min: 0, max: 1000, soft: [0, 3] }),
    rows: number('Rows', 1, 'Faces across the depth.', { min: 1, max: 500, soft: [1, 24], integer: true }),
    bevel: number('Bevel', 0.06, 'How far the rims are taken in.', { unit: 'm', min: 0, max: 1000, soft: [0, 0.5] }),
    profile: choice(
      'Bevel form',
      'round',
      [
        { value: 'round', title: 'Round' },
        { value: 'flat', title: 'Flat' },
        { value: 'hollow', title: 'Hollow' },
      ],
      'How a rim is taken in.',
    ),
    steps: number('Bevel steps', 4, 'Faces across a bevel.', { min: 1, max: 60, soft: [1, 12], integer: true }),
    ends: choice(
      'Ends',
      'both',
      [
        { value: 'both', title: 'Both' },
        { value: 'front', title: 'Front' },
        { value: 'back', title: 'Back' },
        { value: 'open', title: 'Open' },
      ],
      'Which rims are bevelled; open leaves the body without ends.',
    ),
    from: choice(
      'From',
      'middle',
      [
        { value: 'middle', title: 'Middle' },
        { value: 'back', title: 'Back' },
        { value: 'front', title: 'Front' },
      ],
      'Where in the depth the outline lies.',
    ),
  },
  summary: (v) => `${brief(v.depth)} m, bevel ${brief(v.bevel)} m`,
  evaluate(v, input) {
    const c = input.connectivity;
    if (c.vertexCount === 0) return input;
    const closed = c.curves ? c.curves.closed.reduce((a, b) => a + b, 0) : 0;
    if (closed === 0)
      throw new StepProblem('Extrude needs closed outlines, and these curves are open; use Sweep or Wires for them.');
    checkFaces(
      c.curves!.points.length * (v.rows + 2 * v.steps + 1),
      'Use fewer rows, bevel steps or points along the outline.',
    );
    const bevel = Math.min(v.bevel, v.depth / 2);
    const inset = (x: number) =>
      v.profile === 'round'
        ? 1 - Math.sqrt(Math.max(0, 1 - x * x))
        : v.profile === 'flat'
          ? x
          : 1 - Math.sqrt(Math.max(0, 1 - (1 - x) ** 2));
    const low = v.from === 'middle' ? -v.depth / 2 : v.from === 'back' ? 0 : -v.depth;
    const back = bevel > 0 && (v.ends === 'both' || v.ends === 'back');
    const front = bevel > 0 && (v.ends === 'both' || v.ends === 'front');
    const rows: { inset: number; height: number }[] = [];
    for (let k = v.steps; k > 0 && back; k--)
      rows.push({ inset: bevel * inset(k / v.steps), height: low + bevel * (1 - k / v.steps) });
    const [from, to] = [low + (back ? bevel : 0), low + v.depth - (front ? bevel : 0)];
    for (let k = 0; k <= v.rows; k++) rows.push({ inset: 0, height: from + ((to - from) * k) / v.rows });
    for (let k = 1; k <= v.steps && front; k++)
      rows.push({ inset: bevel * inset(k / v.steps), height: to + bevel * (k / v.steps) });
    const sheet = capped(input);
    if (!sheet) throw new StepProblem('These outlines have no area to extrude; their points lie on one line.');
    return extruded(sheet, rows, v.ends !== 'open');
  },
});
