import { asset, choice, number } from '../../declare/params';
import { boundsOf } from '../../shape/measure';
import { brief, defineStep, StepProblem } from '../step';

/** A shape from a file. */
export const imported = defineStep({
  kind: 'imported',
  title: 'Imported',
  help: 'A shape made elsewhere, from a glTF, OBJ, PLY or STL file.',
  icon: 'imported',
  group: 'form',
  params: {
    file: asset('File', 'shape', 'The file it comes from; it is kept with the piece.'),
    fit: choice(
      'Size as',
      'fitted',
      [
        { value: 'fitted', title: 'Fitted' },
        { value: 'file', title: 'In the file' },
      ],
      'Fitted to a size and put in the middle, or as it is in the file, in metres.',
    ),
    size: number('Size', 2.4, 'Its longest side.', {
      unit: 'm',
      min: 0,
      max: 10_000,
      soft: [0.2, 6],
      shownWhen: { param: 'fit', is: ['fitted'] },
    }),
    up: choice(
      'Up is',
      'y',
      [
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
      ],
      'Which axis of the file points up.',
    ),
  },
  summary: (v) => (v.file === '' ? 'no file yet' : v.fit === 'fitted' ? `${brief(v.size)} m` : 'as in the file'),
  evaluate(v, _input, context) {
    if (v.file === '')
      throw new StepProblem('Imported has no file yet; choose one that ends in .glb, .gltf, .obj, .ply or .stl.');
    const kept = context.asset?.(v.file);
    if (!kept || kept.type !== 'shape')
      throw new StepProblem('The file is not kept with this piece any more; choose it again.');
    const p = kept.mesh.positions;
    const out = new Float32Array(p.length);
    for (let i = 0; i < p.length; i += 3) {
      out[i] = p[i];
      out[i + 1] = v.up === 'z' ? p[i + 2] : p[i + 1];
      out[i + 2] = v.up === 'z' ? -p[i + 1] : p[i + 2];
    }
    const bounds = v.fit === 'fitted' ? boundsOf(out) : null;
    if (bounds) {
      const longest = Math.max(...bounds.max.map((x, k) => x - bounds.min[k])) || 1;
      for (let i = 0; i < out.length; i++)
        out[i] = ((out[i] - (bounds.min[i % 3] + bounds.max[i % 3]) / 2) * v.size) / longest;
    }
    return { connectivity: kept.mesh.connectivity, positions: out };
  },
});
