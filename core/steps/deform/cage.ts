import { choice, number, points, toggle, vector } from '../../declare/params';
import { boundsOf } from '../../shape/measure';
import { brief, defineStep } from '../step';
import { limited, regionMoves, regionParams } from './region';

const SIZES = { '2': 2, '3': 3, '4': 4 } as const;
const ZERO: readonly [number, number, number] = [0, 0, 0];

/**
 * Free-form deformation (T. Sederberg & S. Parry, SIGGRAPH 1986): a lattice of control points round the form; each
 * vertex moves by the Bernstein-weighted mean of their displacements.
 */
export const cage = defineStep({
  kind: 'cage',
  title: 'Free cage',
  help: 'A cage of points round the form: move one and the form follows.',
  icon: 'cage',
  group: 'deform',
  carries: 'size',
  params: {
    cells: choice(
      'Points a side',
      '3',
      [
        { value: '2', title: '2' },
        { value: '3', title: '3' },
        { value: '4', title: '4' },
      ],
      'How many points the cage has along each edge.',
    ),
    moves: points(
      'Moves',
      Array.from({ length: 27 }, () => ZERO),
      'How far each point of the cage has been moved, along x first, then y, then z.',
      { handle: 'grid' },
    ),
    amount: number('Amount', 100, 'How much of the moves takes effect.', {
      unit: '%',
      min: -1000,
      max: 1000,
      soft: [-100, 200],
      step: 1,
    }),
    fit: toggle('Fit the form', true, 'The cage goes round the form as it is; otherwise it stands where it is set.'),
    middle: vector('Middle', [0, 0, 0], 'Where the cage stands.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      shownWhen: { param: 'fit', is: [false] },
      handle: 'place',
    }),
    size: vector('Size', [2.4, 2.4, 2.4], 'Of the cage along x, y and z.', {
      unit: 'm',
      min: 0.001,
      max: 10_000,
      soft: [0.2, 6],
      shownWhen: { param: 'fit', is: [false] },
    }),
    ...regionParams,
  },
  summary: (v) => `${v.cells} × ${v.cells} × ${v.cells}, ${brief(v.amount)} %`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const bounds = boundsOf(input.positions);
    if (!bounds || v.amount === 0 || v.moves.every((m) => m.every((x) => x === 0))) return input;
    const n = SIZES[v.cells];
    const low = v.fit ? bounds.min : v.middle.map((m, k) => m - v.size[k] / 2);
    const size = v.fit ? bounds.max.map((x, k) => x - bounds.min[k]) : v.size;
    const p = input.positions;
    const to = p.slice();
    const weights = [0, 1, 2].map(() => new Float64Array(n));
    for (let i = 0; i < p.length; i += 3) {
      for (let k = 0; k < 3; k++)
        bernstein(n - 1, size[k] > 0 ? Math.max(0, Math.min(1, (p[i + k] - low[k]) / size[k])) : 0.5, weights[k]);
      for (let c = 0; c < n; c++)
        for (let b = 0; b < n; b++)
          for (let a = 0; a < n; a++) {
            const move = v.moves[(c * n + b) * n + a];
            if (!move) continue;
            const w = (weights[0][a] * weights[1][b] * weights[2][c] * v.amount) / 100;
            to[i] += w * move[0];
            to[i + 1] += w * move[1];
            to[i + 2] += w * move[2];
          }
    }
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});

const BINOMIAL = [[1], [1, 1], [1, 2, 1], [1, 3, 3, 1]];

/** Bernstein polynomials of a degree at t, into `out`. */
function bernstein(degree: number, t: number, out: Float64Array): void {
  for (let i = 0; i <= degree; i++) out[i] = BINOMIAL[degree][i] * t ** i * (1 - t) ** (degree - i);
}
