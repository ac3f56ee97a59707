import { Document, NodeIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { form, openEdges, step } from '../fixtures/forms';
import { boundsOf, surfaceArea, volume } from '../shape/measure';
import { faceCount, type Mesh } from '../shape/mesh';
import { trianglesOf } from '../shape/triangulate';
import { MissingAsset, assetOf, makeReady, provideAsset } from '../evaluate/assets';
import { newRibbon, newStep } from '../piece/piece';
import { readBundle } from '../piece/bundle';
import { importShape } from './import-shape';
import { readAsset } from './kept';
import { readPgm, writePgm } from './pgm';
import { readPly, writePly } from './ply';

const bytes = (text: string) => new TextEncoder().encode(text);
const torus = form('torus', { ringSegments: 24, pipeSegments: 12 });

/** A file made by glTF-Transform, an independent library. */
async function gltfOf(mesh: Mesh, change: (d: Document) => void = () => {}): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document.createAccessor().setType('VEC3').setArray(new Float32Array(mesh.positions)).setBuffer(buffer),
    )
    .setIndices(
      document
        .createAccessor()
        .setType('SCALAR')
        .setArray(new Uint32Array(trianglesOf(mesh).triangles))
        .setBuffer(buffer),
    );
  document.createScene().addChild(document.createNode('form').setMesh(document.createMesh().addPrimitive(primitive)));
  change(document);
  return new NodeIO().writeBinary(document);
}

/** The description inside a binary file, changed. */
function withJson(glb: Uint8Array, change: (json: Record<string, never>) => void): Uint8Array {
  const view = new DataView(glb.buffer, glb.byteOffset);
  const length = view.getUint32(12, true);
  const json = JSON.parse(new TextDecoder().decode(glb.subarray(20, 20 + length)));
  change(json);
  let text = JSON.stringify(json);
  while (text.length % 4) text += ' ';
  const rest = glb.subarray(20 + length);
  const out = new Uint8Array(20 + text.length + rest.length);
  out.set(glb.subarray(0, 20));
  out.set(bytes(text), 20);
  out.set(rest, 20 + text.length);
  new DataView(out.buffer).setUint32(8, out.length, true);
  new DataView(out.buffer).setUint32(12, text.length, true);
  return out;
}

describe('shapes from files', () => {
  it('glTF keeps volume and place, with nodes inside nodes, and joins parted points', async () => {
    const glb = await gltfOf(torus, (d) => {
      const [node] = d.getRoot().listNodes();
      const parent = d.createNode('parent').setTranslation([1, 2, 3]).setScale([2, 2, 2]);
      d.getRoot().listScenes()[0].removeChild(node).addChild(parent);
      parent.addChild(node);
    });
    const mesh = await importShape('torus.glb', glb);
    expect(volume(mesh) / volume(torus)).toBeCloseTo(8, 3);
    expect(openEdges(mesh)).toBe(0);
    const { min, max } = boundsOf(mesh.positions)!;
    expect([0, 1, 2].map((k) => (min[k] + max[k]) / 2)).toEqual([
      expect.closeTo(1, 4),
      expect.closeTo(2, 4),
      expect.closeTo(3, 4),
    ]);
    const parted = await importShape(
      'parted.glb',
      await gltfOf(step('part', step('triangulate', form('box', { segments: 2 })), { angle: 0 })),
    );
    expect(openEdges(parted)).toBe(0);
  });
  it('glTF as text with its data inside', async () => {
    const { json, resources } = await new NodeIO().writeJSON(await new NodeIO().readBinary(await gltfOf(torus)));
    const [name] = Object.keys(resources);
    json.buffers![0].uri = `data:application/octet-stream;base64,${Buffer.from(resources[name]).toString('base64')}`;
    expect(volume(await importShape('torus.gltf', bytes(JSON.stringify(json))))).toBeCloseTo(volume(torus), 4);
  });
  it('OBJ with polygons, places on the surface and numbers that count back', async () => {
    const text =
      'o quad\nv 0 0 0\nv 1 0 0 # corner\nv 1 1 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nf 1/1 2/2 3/3 4/4\nv 0 0 1\nf -1 -4/2 \\\n -3/3\n';
    const mesh = await importShape('quad.obj', bytes(text));
    expect(faceCount(mesh.connectivity)).toBe(2);
    expect(surfaceArea(mesh)).toBeCloseTo(1 + Math.SQRT2 / 2, 5);
  });
  it('an STL of a third of a million triangles whose corners are shared is taken, however small it is', async () => {
    // 408 × 409 quads: 333,744 triangles, a million corners of which 167,690 are different.
    const [w, h] = [408, 409];
    const bytes = new Uint8Array(84 + 50 * 2 * w * h);
    const view = new DataView(bytes.buffer);
    view.setUint32(80, 2 * w * h, true);
    for (const scale of [1, 1e-9]) {
      let at = 84;
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++)
          for (const corners of [
            [0, 0, 1, 0, 1, 1],
            [0, 0, 1, 1, 0, 1],
          ]) {
            for (let k = 0; k < 3; k++) {
              view.setFloat32(at + 12 + 12 * k, (x + corners[2 * k]) * scale, true);
              view.setFloat32(at + 16 + 12 * k, (y + corners[2 * k + 1]) * scale, true);
              view.setFloat32(at + 20 + 12 * k, 0, true);
            }
            at += 50;
          }
      const mesh = await importShape('sheet.stl', bytes);
      expect(mesh.positions.length / 3).toBe((w + 1) * (h + 1));
      expect(mesh.connectivity.faceStart.length - 1).toBe(2 * w * h);
    }
  });
  it('STL as text and binary, corners joined', async () => {
    const triangles = trianglesOf(form('platonic', { solid: 'octahedron' })).triangles;
    const p = form('platonic', { solid: 'octahedron' }).positions;
    const corner = (v: number) => [...p.subarray(3 * v, 3 * v + 3)];
    let text = 'solid o\n';
    const binary = new DataView(new ArrayBuffer(84 + 50 * 8));
    binary.setUint32(80, 8, true);
    for (let t = 0; t < 8; t++) {
      text += 'facet normal 0 0 0\nouter loop\n';
      for (let k = 0; k < 3; k++) {
        text += `vertex ${corner(triangles[3 * t + k]).join(' ')}\n`;
        corner(triangles[3 * t + k]).forEach((x, i) => binary.setFloat32(84 + 50 * t + 12 + 12 * k + 4 * i, x, true));
      }
      text += 'endloop\nendfacet\n';
    }
    for (const file of [bytes(`${text}endsolid o\n`), new Uint8Array(binary.buffer)]) {
      const mesh = await importShape('o.stl', file);
      expect(mesh.connectivity.vertexCount).toBe(6);
      expect(openEdges(mesh)).toBe(0);
    }
  });
  it('PLY as text, big endian, and ours there and back with polygons and places', async () => {
    const text =
      'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0 255\n1 0 0 255\n0 1 0 255\n3 0 1 2\n';
    expect(surfaceArea(await importShape('t.ply', bytes(text)))).toBeCloseTo(0.5, 6);
    const big = new DataView(new ArrayBuffer(36 + 13));
    [0, 0, 0, 1, 0, 0, 0, 1, 0].forEach((x, i) => big.setFloat32(4 * i, x));
    big.setUint8(36, 3);
    [0, 1, 2].forEach((v, i) => big.setInt32(37 + 4 * i, v));
    const head = bytes(
      text
        .slice(0, text.indexOf('end_header'))
        .replace('ascii', 'binary_big_endian')
        .replace('property uchar red\n', '') + 'end_header\n',
    );
    expect(surfaceArea(readPly(new Uint8Array([...head, ...new Uint8Array(big.buffer)])))).toBeCloseTo(0.5, 6);
    for (const m of [torus, form('platonic')]) {
      const back = readPly(writePly(m));
      expect(back.positions).toEqual(m.positions);
      expect(back.connectivity.corners).toEqual(m.connectivity.corners);
      expect(back.connectivity.uv).toEqual(m.connectivity.uv);
    }
  });
});

describe('broken and hostile files', () => {
  const refused = async (name: string, file: Uint8Array, words: RegExp) =>
    expect(importShape(name, file)).rejects.toThrow(words);
  it('cut off anywhere, they are refused in words, never with a crash', async () => {
    const glb = await gltfOf(torus);
    const ply = writePly(torus);
    const { FileTrouble } = await import('../assets/trouble');
    for (const [name, file] of [
      ['a.glb', glb],
      ['a.ply', ply],
    ] as const)
      for (let i = 1; i < 40; i++) {
        const error = await importShape(name, file.slice(0, Math.floor((file.length * i) / 40))).catch(
          (e: unknown) => e,
        );
        expect(error).toBeInstanceOf(FileTrouble);
        expect((error as Error).message).toMatch(/\.$/);
      }
    await refused('empty.obj', new Uint8Array(0), /empty/);
    await refused('a.blend', bytes('x'), /use a file that ends in/);
  });
  it('counts beyond all measure are refused before anything is made', async () => {
    await refused(
      'a.ply',
      bytes(
        'ply\nformat ascii 1.0\nelement vertex 4000000000\nproperty float x\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n',
      ),
      /4000000000 points/,
    );
    await refused(
      'a.ply',
      bytes(
        'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uint int vertex_indices\nend_header\n0 0 0 1 0 0 0 1 0 4000000000 0 1 2',
      ),
      /4000000000 corners/,
    );
    const glb = await gltfOf(torus);
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j.accessors as { count: number }[])[0].count = 4e9)),
      /points; the most/,
    );
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j.accessors as { count: number }[])[0].count = 900_000)),
      /more than its data holds/,
    );
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j.bufferViews as { byteLength: number }[])[0].byteLength = 1e9)),
      /reaches beyond/,
    );
  });
  it('places that are none, and points that are not there', async () => {
    await refused('a.obj', bytes('v 0 0 nan\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'), /Point 0 is at 0, 0, NaN/);
    await refused('a.obj', bytes('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n'), /names point 8, but there are 3/);
    await refused('a.obj', bytes('v 0 0 0\nv 1 0 0\nf 1 2\n'), /Line 3 has a face of 2 points/);
    await refused('a.obj', bytes('v 0 0 0\n'), /no faces/);
    const glb = await gltfOf({ ...torus, positions: torus.positions.map((x, i) => (i === 5 ? NaN : x)) });
    await refused('a.glb', glb, /which is no place/);
  });
  it('nodes in circles, data elsewhere and unknown compression', async () => {
    const glb = await gltfOf(torus);
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j.nodes as { children?: number[] }[])[0].children = [0])),
      /its own descendant/,
    );
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j.buffers as { uri?: string }[])[0].uri = 'https://elsewhere.invalid/x.bin')),
      /another file/,
    );
    await refused(
      'a.gltf',
      bytes(JSON.stringify({ asset: { version: '2.0' }, buffers: [{ uri: '../../etc/passwd', byteLength: 10 }] })),
      /another file/,
    );
    await refused(
      'a.glb',
      withJson(glb, (j) => ((j as Record<string, unknown>).extensionsRequired = ['EXT_unknown'])),
      /cannot be read without EXT_unknown/,
    );
    await refused('a.gltf', bytes(JSON.stringify({ asset: { version: '1.0' } })), /version 2 is wanted/);
    await refused('a.gltf', bytes('{"asset":'), /not valid JSON/);
  });
  it('pictures that lie about their size', () => {
    expect(() => readPgm(bytes('P5 4 4 255\nabc'))).toThrow('breaks off after 3 of 16 bytes');
    expect(() => readPgm(bytes('P5 99999 99999 255\n'))).toThrow('the most is 8192');
    expect(() => readPgm(bytes('P5 4 4 0\n'))).toThrow('1 to 65535');
    const values = [0, 0.5, 1, 0.25];
    readPgm(writePgm(2, 2, values)).values.forEach((x, i) => expect(x).toBeCloseTo(values[i], 2));
  });
});

describe('the form Imported', () => {
  it('is fitted, put upright, and says what it wants', () => {
    const known = { asset: () => ({ type: 'shape' as const, mesh: step('place', torus, { shift: [5, 5, 5] }) }) };
    const out = boundsOf(form('imported', { file: 'a', size: 2 }, known).positions)!;
    expect(out.max[0] - out.min[0]).toBeCloseTo(2, 4);
    expect(out.max[0] + out.min[0]).toBeCloseTo(0, 4);
    const upright = boundsOf(form('imported', { file: 'a', fit: 'file', up: 'z' }, known).positions)!;
    expect(upright.max[1] - upright.min[1]).toBeCloseTo(2.8, 2);
    expect(() => form('imported')).toThrow('choose one that ends in');
    expect(() => form('imported', { file: 'gone' })).toThrow('choose it again');
  });
  it('files are fetched once before a ribbon is evaluated, and one that cannot be had is not waited for again', async () => {
    const ribbon = {
      ...newRibbon('imported', 0),
      steps: [newStep('imported', { file: 'f1' }), newStep('displace', { by: 'picture', picture: 'f2' })],
    };
    const asked: string[] = [];
    await makeReady(ribbon, (name) => {
      asked.push(name);
      return name === 'f1' ? Promise.resolve(readAsset(writePly(torus))) : Promise.reject(new MissingAsset('gone'));
    });
    expect(asked).toEqual(['f1', 'f2']);
    expect(assetOf('f1')).toMatchObject({ type: 'shape' });
    expect(assetOf('f2')).toBeUndefined();
    expect(makeReady(ribbon, () => Promise.reject(new Error('again')))).toBeNull();
    provideAsset('f2', readAsset(writePgm(1, 1, [1])));
    // What failed on the way is told, and asked for again.
    const third = { ...newRibbon('imported', 0), steps: [newStep('imported', { file: 'f3' })] };
    await expect(makeReady(third, () => Promise.reject(new Error('line cut')))).rejects.toThrow('line cut');
    await makeReady(third, () => Promise.resolve(readAsset(writePly(torus))));
    expect(assetOf('f3')).toMatchObject({ type: 'shape' });
    expect(assetOf('f2')).toMatchObject({ type: 'picture' });
  });
  it('a parcel holds a piece and its files; anything else is a document', () => {
    expect(readBundle('{"maypole":"parcel","piece":"{}","assets":{"a":{"name":"x","data":""}}}')).toEqual({
      source: '{}',
      assets: { a: { name: 'x', data: '' } },
    });
    expect(readBundle('{"maypole":"piece"}')).toEqual({ source: '{"maypole":"piece"}' });
    expect(readBundle('{"maypole":"parcel", oops')).toEqual({ source: '{"maypole":"parcel", oops' });
  });
});
