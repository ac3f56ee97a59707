import { readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { linkPiece } from '@maypole/core/piece/link';
import { newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { importShape } from '@maypole/core/files/import-shape';
import { NodeIO, type Accessor } from '@gltf-transform/core';
import { ALL_EXTENSIONS } from '@gltf-transform/extensions';
import { validateBytes } from 'gltf-validator';
import { Matrix4, Quaternion, Vector3 } from 'three';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import { USDAParser } from 'three/examples/jsm/loaders/usd/USDAParser.js';
import { afterAll, describe, expect, it } from 'vitest';
import { deliverOutput } from './deliver';
import { orderOf, testLoop } from './fixtures/loop';
import { placingOf } from './shapes/turn';
import { short } from './shapes/text-file';

const loop = testLoop(2, 25, [16, 16]);
afterAll(() => rmSync(loop.folder, { recursive: true, force: true }));

const wave = (low: number, high: number) =>
  ({ motion: 'wave', shape: 'sine', low, high, turns: 1, phase: 0 }) as unknown as number;

/** A twisting box, a ring of copies that turn, and a form that is cut into other pieces in every frame. */
function piece(): Piece {
  const box = {
    ...newRibbon('box', 0, 'Box'),
    steps: [newStep('box', { segments: 3 }), newStep('twist', { angle: wave(-60, 60) })],
  };
  const ring = {
    ...newRibbon('sphere', 1, 'Ring'),
    steps: [
      newStep('sphere', { meridians: 8, parallels: 6 }),
      newStep('repeat-rings', { count: 5 }),
      newStep('spin', {}),
    ],
  };
  const changing = {
    ...newRibbon('sphere', 2, 'Growing'),
    steps: [newStep('sphere', { meridians: wave(6, 12), parallels: 4 })],
  };
  return { ...loop.piece, name: 'Shapes', loop: { frames: 12, fps: 24 }, ribbons: [box, ring, changing] };
}

const order = (kind: string, p: Piece) => ({
  ...orderOf({ ...loop, piece: p, frames: Array.from({ length: p.loop.frames }, (_, i) => i) }, kind),
  base: `shapes-${kind}`,
});
const cache = new MeshCache();
const meshOf = (p: Piece, name: string, frame: number) =>
  evaluateRibbon(linkPiece(p).ribbons[p.ribbons.findIndex((r) => r.name === name)], p.loop, frame, 'final', cache).mesh;
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  expect(a.length).toBe(b.length);
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]));
  return most;
};

describe('moving shapes as glTF', () => {
  const p = piece();
  it('are without error or warning to the validator of the Khronos Group', async () => {
    const { files, report } = await deliverOutput(order('glb', p));
    expect(report.sound, report.words).toBe(true);
    expect(report.facts.find((f) => f.title === 'Moments')).toEqual({ title: 'Moments', found: '13' });
    const { issues } = await validateBytes(new Uint8Array(readFileSync(path.join(loop.folder, files[0].name))));
    expect(issues.messages.filter((m) => m.severity < 2)).toEqual([]);
    expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0]);
  });
  it('read by another library have core’s vertices at every frame, and frame N is frame 0', async () => {
    const doc = await new NodeIO().registerExtensions(ALL_EXTENSIONS).read(path.join(loop.folder, 'shapes-glb.glb'));
    const root = doc.getRoot();
    const box = root.listNodes().find((n) => n.getName() === 'Box')!;
    const primitive = box.getMesh()!.listPrimitives()[0];
    const base = primitive.getAttribute('POSITION')!.getArray()!;
    const targets = primitive.listTargets().map((t) => t.getAttribute('POSITION')!.getArray()!);
    expect(targets).toHaveLength(11);
    const [channel] = root
      .listAnimations()[0]
      .listChannels()
      .filter((c) => c.getTargetNode() === box);
    const times = channel.getSampler()!.getInput()!.getArray()!;
    const weights = channel.getSampler()!.getOutput()!.getArray()!;
    expect([...times].map((t) => Math.round(t * 24 * 1e4) / 1e4)).toEqual(Array.from({ length: 13 }, (_, i) => i));
    const at = (key: number) =>
      Float32Array.from(base, (v, i) => targets.reduce((sum, t, k) => sum + weights[11 * key + k] * t[i], v));
    for (let f = 0; f < 12; f++) {
      const mesh = meshOf(p, 'Box', f);
      const found = at(f);
      // A vertex on an edge is drawn once a side; each of them is a vertex of core's.
      const own = new Set<string>();
      for (let i = 0; i < mesh.positions.length; i += 3)
        own.add([0, 1, 2].map((k) => mesh.positions[i + k].toFixed(4)).join());
      for (let i = 0; i < found.length; i += 3) {
        const near = [...own].some((text) => {
          const q = text.split(',').map(Number);
          return Math.hypot(q[0] - found[i], q[1] - found[i + 1], q[2] - found[i + 2]) < 2e-4;
        });
        expect(near).toBe(true);
      }
    }
    expect(farthest(at(12), at(0))).toBe(0);
  });
  it('have copies where core has them, at every frame', async () => {
    const doc = await new NodeIO().registerExtensions(ALL_EXTENSIONS).read(path.join(loop.folder, 'shapes-glb.glb'));
    const root = doc.getRoot();
    const channels = root.listAnimations()[0].listChannels();
    for (let c = 0; c < 5; c++) {
      const node = root.listNodes().find((n) => n.getName() === `Ring ${c + 1}`)!;
      const of = (what: string): Accessor | undefined =>
        channels
          .find((ch) => ch.getTargetNode() === node && ch.getTargetPath() === what)
          ?.getSampler()
          ?.getOutput() ?? undefined;
      for (let f = 0; f < 12; f++) {
        const m = meshOf(p, 'Ring', f).copies!.matrices.subarray(16 * c, 16 * c + 16);
        const t = of('translation')?.getElement(f, []) ?? node.getTranslation();
        const r = of('rotation')?.getElement(f, []) ?? node.getRotation();
        const s = of('scale')?.getElement(f, []) ?? node.getScale();
        const found = new Matrix4().compose(new Vector3(...t), new Quaternion(...r), new Vector3(...s));
        expect(farthest(found.elements, m)).toBeLessThan(2e-6);
      }
    }
  });
  it('that are others in every frame show one of them at a time', async () => {
    const doc = await new NodeIO().registerExtensions(ALL_EXTENSIONS).read(path.join(loop.folder, 'shapes-glb.glb'));
    const root = doc.getRoot();
    const nodes = root.listNodes().filter((n) => n.getName().startsWith('Growing at '));
    expect(nodes).toHaveLength(12);
    const channels = root.listAnimations()[0].listChannels();
    for (let f = 0; f <= 12; f++) {
      const seen = nodes.filter((n) => {
        const sampler = channels.find((c) => c.getTargetNode() === n)!.getSampler()!;
        expect(sampler.getInterpolation()).toBe('STEP');
        return sampler.getOutput()!.getElement(f, [])[0] === 1;
      });
      expect(seen.map((n) => n.getName())).toEqual([`Growing at ${f % 12}`]);
    }
  });
});

describe('moving shapes as OpenUSD', () => {
  it('read by another library have core’s points at three times', async () => {
    const p = piece();
    const { files, report } = await deliverOutput(order('usd', p));
    expect(report.sound, report.words).toBe(true);
    const text = readFileSync(path.join(loop.folder, files[0].name), 'utf8');
    const { specsByPath } = new USDAParser().parseData(text) as {
      specsByPath: Record<
        string,
        { fields: { timeSamples?: { times: number[]; values: number[][] }; default?: unknown } }
      >;
    };
    const { times, values } = specsByPath['/Loop/Box/Shape.points'].fields.timeSamples!;
    expect(times).toEqual(Array.from({ length: 12 }, (_, i) => i));
    for (const f of [0, 5, 11]) expect(farthest(Float32Array.from(values[f]), meshOf(p, 'Box', f).positions)).toBe(0);
    const copies = specsByPath['/Loop/Ring/Copies.positions'].fields.timeSamples!;
    for (const f of [0, 5, 11]) {
      const { matrices } = meshOf(p, 'Ring', f).copies!;
      const wanted = Array.from({ length: 15 }, (_, i) => matrices[16 * Math.floor(i / 3) + 12 + (i % 3)]);
      expect(farthest(copies.values[f], wanted)).toBeLessThan(1e-6);
    }
    const counts = specsByPath['/Loop/Growing/Shape.faceVertexCounts'].fields.timeSamples!;
    for (const f of [0, 4, 8])
      expect(counts.values[f]).toHaveLength(meshOf(p, 'Growing', f).connectivity.faceStart.length - 1);
    // Normals of every corner, to a ten-thousandth those of core, as long as one.
    const normals = specsByPath['/Loop/Box/Shape.normals'].fields.timeSamples!;
    for (const f of [0, 7]) {
      const mesh = meshOf(p, 'Box', f);
      const { cornerVertex } = drawTopologyOf(mesh.connectivity);
      const own = drawBuffers(mesh).normals;
      expect(normals.values[f]).toHaveLength(3 * mesh.connectivity.corners.length);
      cornerVertex.forEach((v, i) => {
        for (let k = 0; k < 3; k++) expect(Math.abs(normals.values[f][3 * i + k] - own[3 * v + k])).toBeLessThan(1e-4);
      });
    }
    expect(text).toContain('interpolation = "faceVarying"');
    // A box about everything at each time.
    const extent = specsByPath['/Loop/Box/Shape.extent'].fields.timeSamples!;
    for (const f of [0, 5]) {
      const { positions } = meshOf(p, 'Box', f);
      const axis = (k: number) => positions.filter((_, i) => i % 3 === k);
      const box = [0, 1, 2].map((k) => Math.min(...axis(k))).concat([0, 1, 2].map((k) => Math.max(...axis(k))));
      expect(farthest(extent.values[f], box)).toBeLessThan(1e-5);
    }
    // Turns in whole single precision.
    expect(Object.keys(specsByPath)).toContain('/Loop/Ring/Copies.orientationsf');
    expect(text).toMatch(/color3f\[\] primvars:displayColor = \[\(/);
    expect(text).toContain('metersPerUnit = 1');
    expect(text).toContain('upAxis = "Y"');
  });
});

describe('faces of several finishes as OpenUSD', () => {
  it('are subsets bound to materials of their own, each face once', async () => {
    const shell = {
      ...newRibbon('box', 0, 'Shell'),
      steps: [newStep('box', { segments: 2 }), newStep('struts', {})],
    };
    const p: Piece = { ...loop.piece, name: 'Finishes', loop: { frames: 2, fps: 24 }, ribbons: [shell] };
    const { files, report } = await deliverOutput({ ...order('usd', p), base: 'finishes' });
    expect(report.sound, report.words).toBe(true);
    const text = readFileSync(path.join(loop.folder, files[0].name), 'utf8');
    const { slots } = meshOf(p, 'Shell', 0).connectivity;
    for (const slot of new Set(slots)) {
      if (slot === 0) continue;
      expect(text).toContain(`def Material "Finish_${slot}"`);
      const subset = text.slice(text.indexOf(`def GeomSubset "Finish_${slot}"`));
      expect(subset).toContain(`rel material:binding = </Loop/Shell/Finish_${slot}>`);
      const faces = /int\[\] indices = \[([\d, ]+)\]/.exec(subset)![1].split(', ').map(Number);
      expect(faces).toEqual([...slots!].flatMap((s, i) => (s === slot ? [i] : [])));
    }
    expect(new Set(slots).size).toBeGreaterThan(1);
  });
});

describe('shapes a frame', () => {
  it.each(['obj', 'ply'])('%s of a frame is read back as it was', async (kind) => {
    const p = { ...piece(), ribbons: [piece().ribbons[0]] };
    const { files, report } = await deliverOutput(order(kind, p));
    expect(report.sound, report.words).toBe(true);
    expect(files).toHaveLength(12);
    for (const f of [0, 7]) {
      const bytes = readFileSync(path.join(loop.folder, files[f].name));
      const mesh = await importShape(`shape.${kind}`, new Uint8Array(bytes));
      const own = meshOf(p, p.ribbons[0].name, f);
      expect(mesh.connectivity.faceStart.length).toBe(own.connectivity.faceStart.length);
      const sorted = (a: Float32Array) =>
        Array.from({ length: a.length / 3 }, (_, i) =>
          [...a.subarray(3 * i, 3 * i + 3)].map((v) => v.toFixed(5)).join(),
        ).sort();
      expect(sorted(mesh.positions)).toEqual(sorted(own.positions));
    }
  });
});

describe('matrices taken apart', () => {
  it('and put together by another library are the same', () => {
    for (let i = 0; i < 200; i++) {
      const q = new Quaternion(Math.sin(i), Math.cos(2.3 * i), Math.sin(5 * i + 1), Math.cos(i * 0.7)).normalize();
      const s = new Vector3(0.2 + (i % 7), i % 3 === 0 ? 0.01 : 2, 1 + (i % 5));
      const m = new Matrix4().compose(new Vector3(i, -i, 0.5), q, i % 2 ? s : s.setX(-s.x));
      const { at, turn, size } = placingOf(m.elements);
      const back = new Matrix4().compose(new Vector3(...at), new Quaternion(...turn), new Vector3(...size));
      for (let k = 0; k < 16; k++) expect(back.elements[k]).toBeCloseTo(m.elements[k], 9);
    }
  });
  it('of no size have a turn that is one', () => {
    const { turn, size } = placingOf(new Matrix4().makeScale(0, 0, 0).elements);
    expect(turn).toEqual([0, 0, 0, 1]);
    expect(size).toEqual([0, 0, 0]);
  });
});

describe('numbers in words', () => {
  it('are short, and single precision brings them back in every bit', () => {
    expect([0, 1, -0.5, 0.1].map(short)).toEqual(['0', '1', '-0.5', '0.1']);
    for (let i = 0; i < 5000; i++) {
      const x = Math.fround(Math.sin(i * 12.9898) * 43758.5453 * 10 ** ((i % 9) - 4));
      expect(Math.fround(Number(short(x)))).toBe(x);
    }
  });
});

describe('demo pieces', () => {
  it.each(['12-halo', '2-gimbal'])('%s is sound as glTF', async (name) => {
    const read = readPiece(readFileSync(path.join(import.meta.dirname, `../demo/${name}.maypole.json`), 'utf8'));
    if (!read.ok) throw new Error(read.message);
    const p = read.piece;
    const { files } = await deliverOutput({ ...order('glb', p), frames: [0, 1, 2], base: name });
    const { issues } = await validateBytes(new Uint8Array(readFileSync(path.join(loop.folder, files[0].name))), {
      maxIssues: 5,
    });
    expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0]);
  });
});
