import { choice, number, toggle, vector } from '../../declare/params';
import { endSize, movedOn } from '../../copies/move-on';
import { defineStep } from '../step';
import { movingSeam } from './moving-seam';
import { checkCopies, repeated, repeatParams, repeatsLater } from './common';

/** Layout of rows: offset along the row, and distance between rows, in spacings. */
const LAYOUTS = {
  square: { shift: 0, near: 1 },
  brick: { shift: 0.5, near: 1 },
  // Every place has six neighbours at one spacing.
  hex: { shift: 0.5, near: Math.sqrt(3) / 2 },
} as const;

/** Copies in rows, columns and layers. */
export const repeatGrid = defineStep({
  kind: 'repeat-grid',
  title: 'Grid',
  help: 'Repeats the form in rows, columns and layers: square, brick or hex.',
  icon: 'repeat-grid',
  group: 'repeat',
  params: {
    layout: choice(
      'Laid out',
      'square',
      [
        { value: 'square', title: 'Square' },
        { value: 'brick', title: 'Brick' },
        { value: 'hex', title: 'Hex' },
        { value: 'box', title: 'Box sides' },
      ],
      'How rows lie beside each other; “Box sides” leaves out what is inside.',
    ),
    columns: number('Columns', 5, 'Along X.', { unit: 'copies', min: 1, max: 10_000, soft: [1, 40], integer: true }),
    layers: number('Layers', 1, 'Along Y.', { unit: 'copies', min: 1, max: 10_000, soft: [1, 20], integer: true }),
    rows: number('Rows', 5, 'Along Z.', { unit: 'copies', min: 1, max: 10_000, soft: [1, 40], integer: true }),
    spacing: vector(
      'Spacing',
      [1, 1, 1],
      'From copy to copy along x, y and z. In a hex grid rows lie 0.87 of it apart, so that with equal numbers ' +
        'all neighbours are equally near.',
      { unit: 'm', min: -1000, max: 1000, soft: [0, 3], handle: 'place' },
    ),
    centred: toggle('Centred', true, 'The middle of the grid stays where the form was; otherwise its first copy.'),
    advance: number('Move on', 0, 'Places along X by which the copies move on in a loop; whole numbers look closed.', {
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
      'While they move on, copies grow in at one end of a row and shrink at the other, so that none pops.',
    ),
    ...repeatParams,
  },
  summary: (v) =>
    `${v.columns} × ${v.layers > 1 ? `${v.layers} × ` : ''}${v.rows} ${v.layout === 'box' ? 'on a box' : v.layout}`,
  reads: { copies: true, detail: true, clock: (v) => v.advance !== 0, loop: (v) => repeatsLater(v) },
  seam: (v, frames) =>
    movingSeam(v, [v.columns], frames, 'columns', v.layout === 'box' ? 'its own gap inside' : undefined),
  evaluate(v, input, context) {
    const { columns, layers, rows } = v;
    checkCopies(columns * layers * rows, 'Use fewer columns, rows or layers.');
    const { shift, near } = LAYOUTS[v.layout === 'box' ? 'square' : v.layout];
    const place = movedOn(v.advance, columns, context.clock);
    const outside = (i: number, j: number, k: number) =>
      i === 0 || j === 0 || k === 0 || i === columns - 1 || j === layers - 1 || k === rows - 1;
    const [at, order, sizes]: number[][] = [[], [], []];
    const middle = v.centred ? [(columns - 1) / 2, (layers - 1) / 2, (rows - 1) / 2] : [0, 0, 0];
    // Half of the rows are offset by half a place, so the overall centre lies a quarter further on.
    const even = v.centred && rows > 1 ? shift / 2 : 0;
    let before = 0;
    for (let j = 0; j < layers; j++)
      for (let k = 0; k < rows; k++) {
        for (let i = 0; i < columns; i++) {
          if (v.layout === 'box' && !outside(i, j, k)) continue;
          const x = place(i);
          at.push(
            (x - middle[0] + (k % 2) * shift - even) * v.spacing[0],
            (j - middle[1]) * v.spacing[1],
            (k - middle[2]) * v.spacing[2] * near,
          );
          order.push(before + x);
          sizes.push(v.ends ? endSize(x, columns) : 1);
        }
        before += columns;
      }
    const moves = v.advance !== 0 && v.ends;
    return repeated(
      v,
      input,
      {
        at: Float32Array.from(at),
        order: Float32Array.from(order),
        places: before,
        ...(moves ? { sizes: Float32Array.from(sizes) } : {}),
      },
      context,
    );
  },
});
