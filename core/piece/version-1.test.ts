import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { makeReady, MissingAsset } from '../evaluate/assets';
import { MeshCache } from '../evaluate/mesh-cache';
import { sceneAt } from '../evaluate/picture-at';
import { evaluateRibbon } from '../evaluate/ribbon';
import { surfacesOf } from '../finish/finish';
import { PLAIN_SURFACE } from '../finish/surface';
import { linkPiece } from './link';
import { migrations } from './migrations';
import { PIECE_VERSION } from './piece';
import { readPiece, readPieceValue } from './read';

const folder = path.join(import.meta.dirname, '../fixtures/version-1');

/** What the code that wrote version 1 made of these pieces, before there was a version 2. */
interface Drawn {
  readonly shapes: string;
  readonly scene: {
    readonly position: number[];
    readonly target: number[];
    readonly focalLength: number;
    readonly backdrop: string;
    readonly strength: number;
    readonly turn: number;
  };
  readonly finishes: readonly {
    readonly colour: string;
    readonly roughness: number;
    readonly metalness: number;
    readonly others: Record<
      string,
      { readonly colour: string; readonly roughness: number; readonly metalness: number }
    >;
  }[];
}

const drawn = JSON.parse(readFileSync(path.join(folder, 'drawn.json'), 'utf8')) as Record<
  string,
  Record<string, Drawn>
>;
const surface = ({ colour, roughness, metalness }: { colour: string; roughness: number; metalness: number }) => ({
  ...PLAIN_SURFACE,
  baseColor: colour,
  roughness,
  metalness,
});

describe('pieces of version 1', () => {
  it('there are as many as were kept', () =>
    expect(
      readdirSync(folder)
        .filter((f) => f.endsWith('.maypole.json'))
        .sort(),
    ).toEqual(Object.keys(drawn).sort()));
  for (const [file, frames] of Object.entries(drawn))
    it(`${file} is drawn as it was`, async () => {
      const read = readPiece(readFileSync(path.join(folder, file), 'utf8'));
      if (!read.ok) throw new Error(read.message);
      expect(read.piece.version).toBe(PIECE_VERSION);
      const piece = linkPiece(read.piece);
      for (const r of piece.ribbons) await makeReady(r, () => Promise.reject(new MissingAsset('Not here.')));
      for (const [frame, before] of Object.entries(frames)) {
        const hash = createHash('sha256');
        const put = (a: Float32Array | Uint16Array | undefined) =>
          a && hash.update(Buffer.from(a.buffer, a.byteOffset, a.byteLength));
        for (const r of piece.ribbons) {
          if (!r.on) continue;
          const { mesh } = evaluateRibbon(r, piece.loop, Number(frame), 'draft', new MeshCache());
          put(mesh.positions);
          put(mesh.copies?.matrices);
          put(mesh.copies?.source);
          for (const s of mesh.copies?.sources ?? []) put(s.positions);
        }
        expect(hash.digest('hex').slice(0, 24)).toBe(before.shapes);
        const { camera, lights, backdrop } = sceneAt(piece, Number(frame));
        const { position, target, focalLength } = camera;
        expect({
          position,
          target,
          focalLength,
          backdrop: backdrop.colour,
          ...(lights[0].type === 'studio' ? { strength: lights[0].strength, turn: lights[0].turn } : {}),
        }).toEqual(before.scene);
        const surfaces = piece.ribbons.map((r) =>
          surfacesOf(r.finishes, { frame: Number(frame), frames: piece.loop.frames }),
        );
        expect(surfaces).toEqual(
          before.finishes.map((f) => ({
            0: surface(f),
            ...Object.fromEntries(Object.entries(f.others).map(([slot, other]) => [slot, surface(other)])),
          })),
        );
      }
    });

  const early = {
    maypole: 'piece',
    version: 1,
    name: 'Early',
    loop: { frames: 60, fps: 30 },
    output: { width: 800, height: 600 },
    scene: { camera: { azimuth: { motion: 'follow', of: 'ring/finish/metalness' }, distance: 4 } },
    ribbons: [
      {
        id: 'ring',
        name: 'Ring',
        colour: '#D9483B',
        on: true,
        finish: { metalness: { motion: 'wave', low: 0, high: 90 }, rodsOwn: true, rodsColour: '#010203' },
        steps: [{ id: 'camera', kind: 'box', on: true, values: {} }],
      },
      {
        id: 'b',
        name: 'B',
        colour: '#3A86B7',
        on: true,
        finish: { colour: '#111111', insideColour: '#222222' },
        steps: [
          { id: 'x', kind: 'box', values: {} },
          {
            id: 't',
            kind: 'twist',
            values: {
              angle: { motion: 'follow', of: 'scene/camera/distance' },
              pivot: [{ motion: 'follow', of: 'scene/camera/target.y' }, 0, 0],
            },
          },
        ],
      },
    ],
  };
  it('keep what they followed, and what was folded away', () => {
    const read = readPieceValue(JSON.parse(JSON.stringify(early)));
    if (!read.ok) throw new Error(read.message);
    const { piece } = read;
    const [camera] = piece.scene.cameras;
    // An identifier that is taken is not taken twice.
    expect(camera.id).toBe('camera-2');
    const metal = piece.ribbons[0].finishes[0].parts[1];
    expect(camera.values.azimuth).toMatchObject({ of: `ring/${metal.id}/metalness` });
    expect(metal.values.metalness).toMatchObject({ motion: 'wave', low: 0, high: 90 });
    const twist = piece.ribbons[1].steps[1].values;
    expect(twist.angle).toMatchObject({ of: `scene/${camera.id}/distance` });
    expect((twist.pivot as unknown[])[0]).toMatchObject({ of: `scene/${camera.id}/target.y` });
    expect(piece.ribbons[0].finishes.map((f) => [f.of, f.on])).toEqual([
      ['main', true],
      ['rods', true],
    ]);
    expect(piece.ribbons[0].finishes[1].parts[0].values).toEqual({ colour: '#010203', roughness: 45, specular: 100 });
    // A finish that was set once and switched off is still there, and off.
    expect(piece.ribbons[1].finishes.map((f) => [f.of, f.on])).toEqual([
      ['main', true],
      ['inside', false],
    ]);
    expect([piece.ribbons[0].steps[0].chance, piece.format, piece.outputs]).toEqual([
      0,
      { width: 800, height: 600 },
      [],
    ]);
  });
  it('are refused for what was wrong with them before, and never thrown at', () => {
    const broken = (change: (d: typeof early) => void) => {
      const d = JSON.parse(JSON.stringify(early));
      change(d);
      const read = readPieceValue(d);
      return read.ok ? 'sound' : read.message;
    };
    expect(broken((d) => (d.ribbons[0].finish = { fluff: 3 } as never))).toContain('has no value “fluff”');
    expect(broken((d) => (d.ribbons[0].finish = { roughness: 300 } as never))).toContain(
      '300 is above the largest Roughness, 100',
    );
    expect(broken((d) => (d.scene = { moon: {} } as never))).toMatch(/moon/);
    expect(broken((d) => (d.output = { width: 3 } as never))).toContain('format.width');
    for (const x of [null, 7, 'x', [], { id: 3 }])
      for (const at of ['ribbons', 'scene', 'output', 'loop'] as const)
        expect(
          broken((d) => (d[at] = x as never)),
          `${at} ${JSON.stringify(x)}`,
        ).not.toBe('');
    for (const x of [null, 7, [], {}]) expect(() => migrations[1](x)).not.toThrow();
  });
});
