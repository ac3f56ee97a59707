import { BufferAttribute, BufferGeometry } from 'three';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { evaluateValues } from '@maypole/core/time/values';
import { withoutKernels } from '@maypole/core/kernels/kernels';
import { newRibbon, newStep, type Values } from '@maypole/core/piece/piece';
import { catmullClark } from '@maypole/core/shape/catmull-clark';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import { vertexNormals } from '@maypole/core/shape/normals';
import { laplacianSmooth } from '@maypole/core/shape/laplacian';
import { topologyOf } from '@maypole/core/shape/topology';
import { stepKind } from '@maypole/core/steps/index';
import { torus } from '@maypole/core/steps/forms/torus';
import { Matrix } from 'ml-matrix';
import { compare, type Row } from './table';

const context = { clock: { frame: 0, frames: 100 }, detail: 'final' as const };
const make = (ringSegments: number, pipeSegments: number) =>
  torus.evaluate(
    { ringRadius: 1, pipeRadius: 0.4, stretch: [1, 1, 1], ringSegments, pipeSegments },
    {
      connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
      positions: new Float32Array(0),
    },
    context,
  );

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
  const base = make(200, 100);
  const fine = catmullClark(base, 2).positions;
  const target = new Float32Array(fine.length);
  const frame = heavyFrame();
  return [
    await compare(
      'vertex normals, 205k triangles',
      () => vertexNormals(big.connectivity, big.positions),
      'three.js computeVertexNormals',
      () => geometry.computeVertexNormals(),
    ),
    await compare(
      'one smoothing pass, 384 vertices',
      () => laplacianSmooth(small, 1, 0.5, false),
      'ml-matrix, dense product',
      () => dense.mmul(points),
    ),
    await compare(
      'Catmull–Clark ×2 of 3200 quads, moving',
      () => catmullClark(coarse, 2),
      'the same, tables made anew',
      () => catmullClark({ ...coarse, connectivity: { ...coarse.connectivity } }, 2),
    ),
    await compare(
      'Catmull–Clark ×2 of 20k quads, moving',
      () => catmullClark(base, 2),
      'writing the output twice',
      () => {
        target.set(fine);
        target.set(fine);
        return target;
      },
    ),
    await compare(
      'the same',
      () => catmullClark(base, 2),
      'writing it twice into memory of its own',
      () => [fine.slice(), fine.slice()],
    ),
    await compare(
      'one frame of a 100k torus: subdivide, cellular ×2, smooth ×20, normals',
      () => frame(0),
      'ours in plain TypeScript',
      () => withoutKernels(() => frame(0)),
    ),
    await compare('eight steps, the last one moving', eightSteps(true), 'that last step alone', eightSteps(false)),
  ];
}

const usual = (kind: string, over: Values = {}) => newStep(kind, over);

/** The heavy chain on 25k quads, one frame after the other, as a worker meets it: what stands still is known. */
function heavyFrame(): (at: number) => unknown {
  const ribbon = {
    ...newRibbon('torus', 0),
    steps: [
      usual('torus', { ringSegments: 250, pipeSegments: 100 }),
      usual('subdivide', { draftLevel: 1 }),
      usual('displace', { noise: 'cellular', octaves: 2, height: 0.1 }),
      usual('smooth', { iterations: 20 }),
    ],
  };
  const cache = new MeshCache();
  let n = 0;
  return () => drawBuffers(evaluateRibbon(ribbon, { frames: 100, fps: 25 }, n++ % 100, 'draft', cache).mesh);
}

function eightSteps(all: boolean): () => unknown {
  const still = ['torus', 'subdivide', 'twist', 'taper', 'ripple', 'spherify', 'smooth'].map((k) =>
    usual(k, k === 'ripple' ? { travels: 0 } : k === 'smooth' ? { iterations: 30 } : {}),
  );
  const last = usual('bend', {
    angle: { motion: 'wave', shape: 'sine', low: 0, high: 90, turns: 1, phase: 0, rest: 0 },
  });
  // Longer than the benchmark runs, so that no frame is met twice.
  const loop = { frames: 100_000, fps: 25 };
  const cache = new MeshCache();
  const ribbon = { ...newRibbon('torus', 0), steps: [...still, last] };
  const body = evaluateRibbon({ ...ribbon, steps: still }, loop, 0, 'draft', cache).mesh;
  let n = 0;
  if (all) return () => evaluateRibbon(ribbon, loop, n++ % loop.frames, 'draft', cache).mesh;
  return () => {
    const clock = { frame: n++ % loop.frames, frames: 1000 };
    const kind = stepKind('bend');
    return kind.evaluate(evaluateValues(kind.params, last.values, clock), body, { clock, detail: 'draft' });
  };
}
