/** Files and documents that are small, or of a size that is taken, and that a reader could be blown up by. */
import { Buffer } from 'node:buffer';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';

const MB = 1024 * 1024;

/** glTF as text: buffers with nothing in them but what is said. */
const gltf = (parts: object) => Buffer.from(JSON.stringify({ asset: { version: '2.0' }, ...parts }));
const triangle = (attributes: object, indices?: number) => ({
  attributes,
  ...(indices === undefined ? {} : { indices }),
});

export interface Explosive {
  readonly name: string;
  readonly of: string;
  readonly bytes: () => Buffer;
}

/** Named as files are, by what a reader would make of them. */
export const FILES: readonly Explosive[] = [
  {
    name: 'face.obj',
    of: 'one face of thirty million corners',
    bytes: () => Buffer.from(`v 0 0 0\nv 1 0 0\nv 0 1 0\nf${' 1'.repeat(30_000_000)}\n`),
  },
  { name: 'lines.obj', of: '63 MB of empty lines', bytes: () => Buffer.alloc(63 * MB, '\n') },
  { name: 'spaces.obj', of: '63 MB of spaces in one line', bytes: () => Buffer.alloc(63 * MB, ' ') },
  { name: 'groups.obj', of: 'ten million groups', bytes: () => Buffer.from('g a\n'.repeat(10_000_000)) },
  { name: 'points.obj', of: 'six million points and no face', bytes: () => Buffer.from('v 0 0 0\n'.repeat(6_000_000)) },
  {
    name: 'faces.obj',
    of: 'eight million faces over three points',
    bytes: () => Buffer.from(`v 0 0 0\nv 1 0 0\nv 0 1 0\n${'f 1 2 3\n'.repeat(7_900_000)}`),
  },
  {
    name: 'elements.ply',
    of: 'four hundred elements without properties, each of a thousand million rows',
    bytes: () =>
      Buffer.from(
        'ply\nformat ascii 1.0\n' +
          `${Array.from({ length: 400 }, (_, i) => `element e${i} 1000000000\n`).join('')}element vertex 0\n` +
          'property float x\nproperty float y\nproperty float z\nend_header\n',
      ),
  },
  {
    name: 'vertex.ply',
    of: 'four thousand million vertices that are said to come',
    bytes: () =>
      Buffer.from(
        'ply\nformat binary_little_endian 1.0\nelement vertex 4000000000\nproperty float x\nproperty float y\n' +
          'property float z\nend_header\n',
      ),
  },
  {
    name: 'list.ply',
    of: 'a list that is said to be endless',
    bytes: () =>
      Buffer.concat([
        Buffer.from(
          'ply\nformat binary_little_endian 1.0\nelement face 1\nproperty list uint int vertex_indices\nend_header\n',
        ),
        Buffer.from([255, 255, 255, 255]),
      ]),
  },
  {
    name: 'properties.ply',
    of: 'two hundred thousand properties',
    bytes: () =>
      Buffer.from(`ply\nformat ascii 1.0\nelement vertex 1000\n${'property float p\n'.repeat(200_000)}end_header\n`),
  },
  {
    name: 'count.stl',
    of: 'four thousand million triangles that are said to come',
    bytes: () => Buffer.concat([Buffer.alloc(80), Buffer.from([255, 255, 255, 255])]),
  },
  {
    name: 'text.stl',
    of: '63 MB of facets in text',
    bytes: () =>
      Buffer.from(
        'solid x\n' +
          `${'facet normal 0 0 0\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n'.repeat(680_000)}endsolid ` +
          'x\n',
      ),
  },
  {
    name: 'words.stl',
    of: '63 MB of words that are no facets',
    bytes: () => Buffer.from(`solid x\n${'vertex '.repeat(9_000_000)}`),
  },
  {
    name: 'accessor.gltf',
    of: 'an accessor without a view, of a hundred million points, named thirty times',
    bytes: () =>
      gltf({
        accessors: [{ componentType: 5126, type: 'VEC3', count: 100_000_000 }],
        meshes: [{ primitives: Array.from({ length: 30 }, () => triangle({ POSITION: 0 })) }],
        nodes: [{ mesh: 0 }],
        scenes: [{ nodes: [0] }],
        scene: 0,
      }),
  },
  {
    name: 'sparse.gltf',
    of: 'a sparse accessor of two thousand million values',
    bytes: () =>
      gltf({
        buffers: [
          { byteLength: 16, uri: `data:application/octet-stream;base64,${Buffer.alloc(16).toString('base64')}` },
        ],
        bufferViews: [{ buffer: 0, byteLength: 16 }],
        accessors: [
          {
            componentType: 5126,
            type: 'VEC3',
            count: 2_000_000_000,
            sparse: {
              count: 2_000_000_000,
              indices: { bufferView: 0, componentType: 5125 },
              values: { bufferView: 0 },
            },
          },
        ],
        meshes: [{ primitives: [triangle({ POSITION: 0 })] }],
        nodes: [{ mesh: 0 }],
        scenes: [{ nodes: [0] }],
      }),
  },
  {
    name: 'nodes.gltf',
    of: 'fifty thousand nodes of a mesh of thirty thousand points',
    bytes: () => {
      const points = 30_000;
      return gltf({
        buffers: [
          {
            byteLength: points * 12,
            uri: `data:application/octet-stream;base64,${Buffer.alloc(points * 12).toString('base64')}`,
          },
        ],
        bufferViews: [{ buffer: 0, byteLength: points * 12 }],
        accessors: [{ bufferView: 0, componentType: 5126, type: 'VEC3', count: points }],
        meshes: [{ primitives: [triangle({ POSITION: 0 })] }],
        nodes: Array.from({ length: 50_000 }, () => ({ mesh: 0 })),
        scenes: [{ nodes: Array.from({ length: 50_000 }, (_, i) => i) }],
      });
    },
  },
  {
    name: 'deep.gltf',
    of: 'nodes a hundred thousand deep',
    bytes: () =>
      gltf({
        nodes: Array.from({ length: 100_000 }, (_, i) => (i < 99_999 ? { children: [i + 1] } : {})),
        scenes: [{ nodes: [0] }],
      }),
  },
  {
    name: 'brackets.gltf',
    of: 'brackets thirty million deep',
    bytes: () => Buffer.from('['.repeat(30_000_000)),
  },
  {
    name: 'size.png',
    of: 'a picture that says it is two thousand million pixels wide',
    bytes: () =>
      Buffer.concat([
        Buffer.from([137, 80, 78, 71, 13, 10, 26, 10, 0, 0, 0, 13]),
        Buffer.from('IHDR'),
        Buffer.from([127, 255, 255, 255, 127, 255, 255, 255, 8, 6, 0, 0, 0, 0, 0, 0, 0]),
      ]),
  },
  { name: 'size.pgm', of: 'the same of a grey picture', bytes: () => Buffer.from('P5 2000000000 2000000000 255\n') },
  {
    name: 'size.hdr',
    of: 'the same of a picture of light',
    bytes: () => Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 2000000000 +X 2000000000\n'),
  },
];

const doc = (change: (piece: ReturnType<typeof newPiece>) => unknown) =>
  Buffer.from(JSON.stringify(change(JSON.parse(writePiece(newPiece('Large'))) as ReturnType<typeof newPiece>)));

/** Documents, of a size that is taken. */
export const DOCUMENTS: readonly Explosive[] = [
  {
    name: 'steps',
    of: '64 ribbons with 200 steps each',
    bytes: () =>
      Buffer.from(
        writePiece({
          ...newPiece('Large'),
          ribbons: Array.from({ length: 64 }, (_, i) => {
            const ribbon = newRibbon('torus', i);
            return { ...ribbon, steps: [...ribbon.steps, ...Array.from({ length: 199 }, () => newStep('twist'))] };
          }),
        }),
      ),
  },
  {
    name: 'values',
    of: 'half a million values that are not known',
    bytes: () =>
      doc((piece) => ({ ...piece, ...Object.fromEntries(Array.from({ length: 400_000 }, (_, i) => [`v${i}`, i])) })),
  },
  {
    name: 'deep',
    of: 'names nested five thousand deep',
    bytes: () =>
      Buffer.from(
        writePiece(newPiece('Deep')).replace('"name"', `"deep": ${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}, "name"`),
      ),
  },
  { name: 'brackets', of: 'brackets four million deep', bytes: () => Buffer.from('['.repeat(4_000_000)) },
  {
    name: 'ribbons',
    of: 'forty thousand ribbons that are nothing',
    bytes: () => doc((piece) => ({ ...piece, ribbons: Array.from({ length: 400_000 }, () => ({})) })),
  },
  {
    name: 'formula',
    of: 'a formula of two million letters',
    bytes: () =>
      doc((piece) => ({
        ...piece,
        ribbons: [
          {
            ...newRibbon('torus', 0),
            place: { x: { motion: { kind: 'formula', formula: `${'('.repeat(1_000_000)}1` } } },
          },
        ],
      })),
  },
  {
    name: 'name',
    of: 'a name of seven million letters',
    bytes: () => doc((piece) => ({ ...piece, name: 'x'.repeat(7_000_000) })),
  },
  {
    name: 'inherited',
    of: 'inherited names as kinds',
    bytes: () =>
      doc((piece) => ({
        ...piece,
        ribbons: [
          {
            ...newRibbon('torus', 0),
            steps: [
              { id: 'a', kind: 'constructor', on: true, values: {} },
              { id: 'b', kind: '__proto__', on: true, values: {} },
            ],
          },
        ],
      })),
  },
];
