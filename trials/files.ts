import { writePly } from '@maypole/core/files/ply';
import { importShape } from '@maypole/core/files/import-shape';
import { form } from '@maypole/core/fixtures/forms';
import { randomSource } from '@maypole/core/maths/random';
import { DOCUMENTS, FILES } from './explosive';
import { measured } from './measure';
import { percentile, type Trial } from './trial';

/** What a file or document that is made to blow a reader up may take. */
const MOST = { ms: 2000, megabytes: 300 };

/** Small files of each format, to be spoilt. */
function seeds(): readonly [string, Uint8Array][] {
  const ball = form('geodesic', { frequency: 2 });
  const text = (t: string) => new TextEncoder().encode(t);
  const stl = new Uint8Array(84 + 50 * 4);
  new DataView(stl.buffer).setUint32(80, 4, true);
  const gltf = {
    asset: { version: '2.0' },
    buffers: [
      {
        byteLength: 36,
        uri:
          'data:application/octet-stream;base64,' +
          `${Buffer.from(new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]).buffer).toString('base64')}`,
      },
    ],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    accessors: [{ bufferView: 0, componentType: 5126, type: 'VEC3', count: 3 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    nodes: [
      { mesh: 0, children: [1] },
      { mesh: 0, scale: [1, 2, 3] },
    ],
    scenes: [{ nodes: [0] }],
    scene: 0,
  };
  return [
    ['a.ply', writePly(ball)],
    ['b.obj', text('v 0 0 0\nv 1 0 0\nv 0 1 0\nvt 0 0\nf 1/1 2/1 3/1\nf -1 -2 -3\n')],
    ['c.stl', stl],
    [
      'd.stl',
      text(
        'solid x\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid x\n',
      ),
    ],
    ['e.gltf', text(JSON.stringify(gltf))],
  ];
}

/** Files with some bytes changed, or cut short: how many were taken, how long each took, and what is wrong. */
export async function spoiltFiles(times: number, seed: number) {
  const random = randomSource(seed);
  const wrong: string[] = [];
  const took: number[] = [];
  let taken = 0;
  const all = seeds();
  for (let i = 0; i < times; i++) {
    const [name, good] = all[i % all.length];
    const bytes = Uint8Array.from(random() < 0.2 ? good.subarray(0, random() * good.length) : good);
    for (let k = 0; k < 1 + random() * 4 && bytes.length > 0; k++)
      bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    const began = performance.now();
    try {
      await importShape(name, bytes);
      taken++;
    } catch (error) {
      if ((error as Error).name !== 'FileTrouble')
        wrong.push(`file ${i} (${name}) threw: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`);
    }
    took.push(performance.now() - began);
  }
  return { wrong, took, taken };
}

/** Files that are spoilt, and files that are made to blow a reader up, are taken or refused in a sentence, soon. */
export const files: Trial = {
  help: 'files that are spoilt, or made to blow a reader up, are taken or refused in a sentence',
  short: 300,
  full: 5000,
  async run(times, seed, tell) {
    const { wrong, took, taken } = await spoiltFiles(times, seed);
    if (Math.max(...took) > MOST.ms) wrong.push(`one file took ${Math.round(Math.max(...took))} ms`);
    let [ms, megabytes] = [0, 0];
    for (const [what, list] of [
      ['file', FILES],
      ['document', DOCUMENTS],
    ] as const)
      for (const one of list) {
        const found = await measured(what, one.name);
        tell(`${one.of}: ${Math.round(found.ms)} ms, ${Math.round(found.megabytes)} MB; ${found.how.slice(0, 90)}`);
        ms = Math.max(ms, found.ms);
        megabytes = Math.max(megabytes, found.megabytes);
        if (found.ms > MOST.ms || found.megabytes > MOST.megabytes || found.how.startsWith('FAULT'))
          wrong.push(`${one.of}: ${Math.round(found.ms)} ms, ${Math.round(found.megabytes)} MB, ${found.how}`);
      }
    return {
      figures: {
        'spoilt files': times,
        taken,
        'p99 ms': Math.round(percentile(took, 0.99)),
        'made to blow up': FILES.length + DOCUMENTS.length,
        'most ms of those': Math.round(ms),
        'most MB of those': Math.round(megabytes),
      },
      wrong,
    };
  },
};
