import { choice, number, ribbon, toggle } from '../../declare/params';
import { standing } from '../../copies/basis';
import { faceCount, perConnectivity, type Connectivity, type Mesh } from '../../shape/mesh';
import { netOf } from '../../shape/curves/net';
import { vertexNormals } from '../../shape/normals';
import { axisAngle, multiply } from '../../maths/quaternion';
import { defineStep, StepProblem } from '../step';
import { checkCopies, repeated, repeatParams, repeatsLater } from './common';

/** Corners of the elements that copies stand on; the first two give the direction of X. */
const elements: Record<'vertices' | 'edges' | 'faces', (c: Connectivity) => Uint32Array[]> = {
  vertices: perConnectivity((c) => {
    const { neighbourStart, neighbours } = netOf(c);
    return Array.from({ length: c.vertexCount }, (_, v) =>
      Uint32Array.of(v, neighbourStart[v] < neighbourStart[v + 1] ? neighbours[neighbourStart[v]] : v),
    );
  }),
  edges: perConnectivity((c) => {
    const { edges } = netOf(c);
    return Array.from({ length: edges.length / 2 }, (_, e) => edges.subarray(2 * e, 2 * e + 2));
  }),
  faces: perConnectivity((c) =>
    Array.from({ length: faceCount(c) }, (_, f) => c.corners.subarray(c.faceStart[f], c.faceStart[f + 1])),
  ),
};

/** Copies on the vertices, edges or faces of another ribbon. */
export const repeatPoints = defineStep({
  kind: 'repeat-points',
  title: 'On a form',
  help: 'Repeats the form on vertices, edges or faces of another ribbon.',
  icon: 'repeat-points',
  group: 'repeat',
  params: {
    other: ribbon('Form', 'The ribbon they stand on.'),
    on: choice(
      'On its',
      'vertices',
      [
        { value: 'vertices', title: 'Vertices' },
        { value: 'edges', title: 'Edges' },
        { value: 'faces', title: 'Faces' },
      ],
      'One copy on each.',
    ),
    turned: toggle('Outwards', true, 'Y points away from the surface; X points along an edge.'),
    spin: number('Turn', 0, 'About each copy’s own Y.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    off: number('Off the surface', 0, 'Along its normal.', { unit: 'm', min: -1000, max: 1000, soft: [-1, 1] }),
    fits: toggle(
      'Sized by its place',
      false,
      'Copies on larger faces or longer edges are larger, in proportion to the average.',
    ),
    ...repeatParams,
  },
  summary: (v) => `on ${v.on}`,
  reads: { copies: true, detail: true, loop: (v) => repeatsLater(v) },
  evaluate(v, input, context) {
    const other = context.other?.('other');
    if (!other || other.connectivity.vertexCount === 0)
      throw new StepProblem('On a form needs another ribbon to stand on; name one.');
    const list = elements[v.on](other.connectivity);
    if (list.length === 0)
      throw new StepProblem(`The ribbon it stands on has no ${v.on}; choose another, or its vertices.`);
    checkCopies(list.length, 'Name a ribbon with fewer points.');
    return repeated(v, input, placesOn(other, list, v), context);
  },
});

function placesOn(
  other: Mesh,
  list: readonly Uint32Array[],
  v: { on: 'vertices' | 'edges' | 'faces'; turned: boolean; spin: number; off: number; fits: boolean },
) {
  const p = other.positions;
  const normals = vertexNormals(other.connectivity, p);
  const n = list.length;
  const [at, turns] = [new Float32Array(3 * n), new Float32Array(4 * n)];
  const sizes = v.fits && v.on !== 'vertices' ? new Float32Array(n) : undefined;
  const spin = axisAngle([0, 1, 0], v.spin);
  for (let i = 0; i < n; i++) {
    const corners = v.on === 'vertices' ? list[i].subarray(0, 1) : list[i];
    const [middle, up] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    for (const c of corners)
      for (let k = 0; k < 3; k++) {
        middle[k] += p[3 * c + k] / corners.length;
        up[k] += normals[3 * c + k];
      }
    const length = Math.hypot(...up);
    const y: [number, number, number] = length > 1e-9 ? [up[0] / length, up[1] / length, up[2] / length] : [0, 1, 0];
    const [a, b] = [list[i][0], list[i][1]];
    const along: [number, number, number] = [
      p[3 * b] - p[3 * a],
      p[3 * b + 1] - p[3 * a + 1],
      p[3 * b + 2] - p[3 * a + 2],
    ];
    turns.set(multiply(v.turned ? standing(y, along) : [0, 0, 0, 1], spin), 4 * i);
    for (let k = 0; k < 3; k++) at[3 * i + k] = middle[k] + v.off * y[k];
    if (sizes) sizes[i] = v.on === 'edges' ? Math.hypot(...along) : Math.sqrt(areaOf(p, corners));
  }
  const mean = sizes ? sizes.reduce((s, x) => s + x, 0) / n || 1 : 1;
  return { at, turns, ...(sizes ? { sizes: sizes.map((s) => s / mean) } : {}) };
}

function areaOf(p: Float32Array, corners: Uint32Array): number {
  const n = [0, 0, 0];
  for (let i = 1; i + 1 < corners.length; i++) {
    const [a, b, c] = [3 * corners[0], 3 * corners[i], 3 * corners[i + 1]];
    const u = [0, 1, 2].map((k) => p[b + k] - p[a + k]);
    const w = [0, 1, 2].map((k) => p[c + k] - p[a + k]);
    for (let k = 0; k < 3; k++) n[k] += u[(k + 1) % 3] * w[(k + 2) % 3] - u[(k + 2) % 3] * w[(k + 1) % 3];
  }
  return Math.hypot(...n) / 2;
}
