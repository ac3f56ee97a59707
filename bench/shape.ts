import { BufferAttribute, BufferGeometry } from 'three';
import { catmullClark } from '@maypole/core/shape/catmull-clark';
import { drawTopologyOf } from '@maypole/core/shape/drawable';
import { vertexNormals } from '@maypole/core/shape/normals';
import { laplacianSmooth } from '@maypole/core/shape/laplacian';
import { topologyOf } from '@maypole/core/shape/topology';
import { torus } from '@maypole/core/steps/forms/torus';
import { Matrix } from 'ml-matrix';
import { compare, type Row } from './table';

const context = { clock: { frame: 0, frames: 100 }, detail: 'final' as const };
const make = (ringSegments: number, pipeSegments: number) => torus.evaluate({ ringRadius: 1, pipeRadius: 0.4, ringSegments, pipeSegments }, null as never, context);

export async function shape(): Promise<Row[]> {
  const big = make(512, 200);
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(big.positions, 3));
  geometry.setIndex(new BufferAttribute(drawTopologyOf(big.connectivity).triangles, 1));

  const small = make(24, 16);
  const n = small.connectivity.vertexCount;
  const { edges } = topologyOf(small.connectivity);
  const dense = Matrix.zeros(n, n);
  for (let e = 0; e < edges.length; e += 2) {
    dense.set(edges[e], edges[e + 1], 0.125);
    dense.set(edges[e + 1], edges[e], 0.125);
  }
  for (let i = 0; i < n; i++) dense.set(i, i, 0.5);
  const points = Matrix.from1DArray(n, 3, [...small.positions]);

  const coarse = make(80, 40);
  catmullClark(coarse, 2);
  return [
    await compare('vertex normals, 205k triangles', () => vertexNormals(big.connectivity, big.positions), 'three.js computeVertexNormals', () => geometry.computeVertexNormals()),
    await compare('one smoothing pass, 384 vertices', () => laplacianSmooth(small, 1, 0.5, false), 'ml-matrix, dense product', () => dense.mmul(points)),
    await compare(
      'Catmull–Clark ×2 of 3200 quads, moving',
      () => catmullClark(coarse, 2),
      'the same, tables made anew',
      () => catmullClark({ ...coarse, connectivity: { ...coarse.connectivity } }, 2),
    ),
  ];
}
