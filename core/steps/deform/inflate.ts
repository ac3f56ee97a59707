import { number } from '../../declare/params';
import { vertexNormals } from '../../shape/normals';
import { brief, defineStep } from '../step';
import { limited, regionMoves, regionParams } from './region';

/** Moves every point along its normal. */
export const inflate = defineStep({
  kind: 'inflate',
  title: 'Inflate',
  help: 'Blows the form up or lets it shrink, along its normals.',
  icon: 'inflate',
  group: 'deform',
  carries: 'shift',
  params: {
    amount: number('Amount', 0.1, 'How far outwards; below 0 inwards.', {
      unit: 'm',
      min: -100,
      max: 100,
      soft: [-1, 1],
    }),
    ...regionParams,
  },
  summary: (v) => `${brief(v.amount)} m outwards`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const p = input.positions;
    const normals = vertexNormals(input.connectivity, p);
    const to = new Float32Array(p.length);
    for (let i = 0; i < p.length; i++) to[i] = p[i] + v.amount * normals[i];
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
