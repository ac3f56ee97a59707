import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { eulerCharacteristic, surfaceArea, volume } from '../../shape/measure';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { newRibbon, newStep } from '../../piece/piece';
import { edgeLengths } from '../../shape/edge-lengths';
import { linksBetween, TooManyPairs } from '../../shape/links';
import type { Mesh } from '../../shape/mesh';
import { topologyOf } from '../../shape/topology';
import { stepKind } from '../index';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const run = (kind: string, values: object, input: Mesh = empty): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, input, {
    clock: { frame: 0, frames: 60 },
    detail: 'draft',
  });
const faces = (m: Mesh) => m.connectivity.faceStart.length - 1;
const borders = (m: Mesh) => [...topologyOf(m.connectivity).borderEdge].filter(Boolean).length;
const unbalanced = (m: Mesh) => {
  const { corners, faceStart } = m.connectivity;
  const balance = new Map<string, number>();
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let i = faceStart[f]; i < faceStart[f + 1]; i++) {
      const [a, b] = [corners[i], corners[i + 1 < faceStart[f + 1] ? i + 1 : faceStart[f]]];
      const key = a < b ? `${a},${b}` : `${b},${a}`;
      balance.set(key, (balance.get(key) ?? 0) + (a < b ? 1 : -1));
    }
  return [...balance.values()].filter((n) => n !== 0).length;
};
const cube = run('box', { size: [1, 1, 1], segments: 1 });
const dodecahedron = run('platonic', { solid: 'dodecahedron', radius: 1 });

describe('copies', () => {
  it('mirror: twice the volume, faces still outwards; folded, both halves are the same half', () => {
    const right = run('place', { shift: [2, 0, 0] }, cube);
    const out = run('mirror', { axis: 'x' }, right);
    expect(volume(out)).toBeCloseTo(2, 5);
    expect(run('mirror', { axis: 'x', fold: true }, cube).positions.slice(0, 3)).toEqual(
      Float32Array.from([0, -0.5, -0.5]).map((_, i) => (i === 0 ? Math.max(0, cube.positions[0]) : cube.positions[i])),
    );
  });
  it('nest: each copy smaller by the same share (0.8 of 0.8 of …), volumes in a geometric series', () => {
    const out = run('nest', { copies: 5, size: 0.8, turn: [0, 20, 0] }, cube);
    expect(faces(out)).toBe(30);
    expect(volume(out)).toBeCloseTo((1 - 0.512 ** 5) / (1 - 0.512), 4);
    // The last is turned by four times the step: its corner lies where a quarter of that would put it.
    const last = [...out.positions.slice(4 * 24, 4 * 24 + 3)];
    const turned = run('place', { turn: [0, 80, 0], size: 0.8 ** 4 }, cube);
    last.forEach((x, k) => expect(x).toBeCloseTo(turned.positions[k], 5));
  });
  it('nest later: each does what the one before did, later; by chance, each its own', () => {
    const swing = { motion: 'wave', shape: 'sine', width: 50, low: -40, high: 40, turns: 1, phase: 0, rest: 0 };
    const at = (frame: number, later: number) =>
      evaluateRibbon(
        {
          ...newRibbon('box', 0),
          steps: [
            newStep('box', { size: [1, 1, 1], segments: 1 }),
            newStep('nest', { copies: 4, size: 1, turn: [0, swing as never, 0], later }),
          ],
        },
        { frames: 40, fps: 20 },
        frame,
        'draft',
        new MeshCache(),
      ).mesh.positions;
    const angle = (p: Float32Array, copy: number) => Math.atan2(p[24 * copy + 2], p[24 * copy]);
    const turn = (p: Float32Array, copy: number) => Math.sin(angle(p, copy) - angle(p, copy - 1));
    for (const f of [3, 17, 31]) {
      for (const k of [1, 2]) expect(turn(at(f, 10), k + 1)).toBeCloseTo(turn(at(f - 4, 10), k), 5);
      expect(turn(at(f, 0), 3)).toBeCloseTo(turn(at(f, 0), 1), 5);
      expect(at(f + 40, 10)).toEqual(at(f, 10));
    }
    const thrown = run('nest', { copies: 4, size: 1, turn: [0, 0, 0], spread: [0, 30, 0], seed: 3 }, cube).positions;
    const turns = [1, 2, 3].map((k) => turn(thrown, k));
    expect(new Set(turns.map((t) => t.toFixed(4))).size).toBe(3);
    for (const t of turns) expect(Math.abs(t)).toBeLessThan(0.5 + 1e-6);
  });
  it('links measured in sizes: large copies reach far, small ones near', () => {
    // Balls of radius 1 and ½ at 0, 2.5 and 4.5: sizes 2, 2 and 1, so distances of 1.25 and 4/3 sizes.
    const sizes = [2, 2, 1];
    expect(linksBetween([0, 0, 0, 2.5, 0, 0, 4.5, 0, 0], 1.3, 6, 0, sizes)).toEqual([0, 1]);
    expect(linksBetween([0, 0, 0, 2.5, 0, 0, 4.5, 0, 0], 1.4, 6, 0, sizes)).toEqual([0, 1, 1, 2]);
    expect(linksBetween([0, 0, 0, 2.5, 0, 0, 4.5, 0, 0], 1.4, 6, 1.3, sizes)).toEqual([1, 2]);
    // A grid of unit edges, however large it is made: every edge of a quad is one size long.
    for (const scale of [0.01, 1, 300]) {
      const sheet = run('plane', { size: [4, 4], segments: 4, width: 4 * scale, depth: 4 * scale } as never);
      expect(edgeLengths(sheet)[12]).toBeGreaterThan(0);
      const out = run('links', { radius: 1.1, relative: 'sizes', rod: 0 }, sheet);
      expect(out.connectivity.curves!.closed.length).toBe(topologyOf(sheet.connectivity).edges.length / 2);
    }
  });
  it('symmetry: as many times the volume, and the same set of points after one part of a turn', () => {
    const out = run('symmetry', { times: 5, outwards: 2 }, cube);
    expect(volume(out)).toBeCloseTo(5, 4);
    const turned = run('spin', { turns: 0, angle: 72 }, out);
    const key = (m: Mesh) =>
      Array.from({ length: m.positions.length / 3 }, (_, i) =>
        [...m.positions.slice(3 * i, 3 * i + 3)].map((x) => Math.round(x * 1e3) + 0).join(),
      ).sort();
    expect(key(turned)).toEqual(key(out));
  });
});

describe('structure', () => {
  it('shell of a cube: its faces are just as thick as asked, round corners too', () => {
    // Walls of 0.1 inside a unit cube leave a hollow of 0.8³.
    expect(volume(run('shell', { thickness: 0.1, side: 'in' }, cube))).toBeCloseTo(1 - 0.512, 4);
    expect(volume(run('shell', { thickness: 0.1, side: 'out' }, cube))).toBeCloseTo(1.728 - 1, 4);
    expect(volume(run('shell', { thickness: 0.2, side: 'both' }, cube))).toBeCloseTo(1.728 - 0.512, 4);
  });
  it('shell closes open borders: a sheet becomes a slab', () => {
    const slab = run(
      'shell',
      { thickness: 0.3, side: 'both' },
      run('plane', { width: 2, depth: 1, columns: 4, rows: 3 }),
    );
    expect(borders(slab)).toBe(0);
    expect(volume(slab)).toBeCloseTo(0.6, 5);
    expect(eulerCharacteristic(slab)).toBe(2);
  });
  it('thickness before thinning gives plates apart, after it a solid shell with holes: the order decides', () => {
    const ball = run('geodesic', { frequency: 6 });
    const thin = run('thin-out', { share: 40, seed: 3 }, ball);
    // Every edge is gone along as often one way as the other: nothing is open.
    expect(unbalanced(run('shell', { thickness: 0.05 }, thin))).toBe(0);
    expect(
      unbalanced(run('thin-out', { share: 40, seed: 3 }, run('shell', { thickness: 0.05 }, ball))),
    ).toBeGreaterThan(0);
  });
  it.each(['chance', 'order', 'patches'])(
    'thin out by %s takes just the share, and more of it takes more of the same',
    (by) => {
      const ball = run('geodesic', { frequency: 8 });
      const at = (share: number) => run('thin-out', { share, by, seed: 2 }, ball);
      expect([0, 25, 50, 100].map((s) => faces(at(s)))).toEqual([1280, 960, 640, 0]);
      const places = (m: Mesh) =>
        new Set(
          Array.from({ length: faces(m) }, (_, f) =>
            [...m.connectivity.corners.slice(3 * f, 3 * f + 3)]
              .map((v) => [...m.positions.slice(3 * v, 3 * v + 3)].join())
              .join(' '),
          ),
        );
      const [some, fewer] = [places(at(25)), places(at(50))];
      for (const f of fewer) expect(some.has(f)).toBe(true);
      // What stands still is found again by its identity, so that nothing after it is computed anew.
      if (by !== 'patches') expect(at(25).connectivity).toBe(at(25).connectivity);
    },
  );
  it('burst: faces apart, each as far along its normal as asked, at the size asked', () => {
    const out = run('burst', { distance: 0.5, variety: 0, size: 100 }, cube);
    expect(borders(out)).toBe(24);
    expect(surfaceArea(out)).toBeCloseTo(6, 5);
    for (let i = 0; i < out.positions.length; i += 3)
      expect(Math.max(...[...out.positions.slice(i, i + 3)].map(Math.abs))).toBeCloseTo(1, 5);
    expect(surfaceArea(run('burst', { distance: 0.5, size: 50, turn: 33 }, cube))).toBeCloseTo(1.5, 5);
  });
  it('struts: a rod for every edge and a joint for every corner, all closed', () => {
    const out = run('struts', { rod: 0.05, joint: 0.12, sides: 6 }, dodecahedron);
    expect(faces(out)).toBe(30 * 6 + 20 * 32);
    const bare = run('struts', { rod: 0.05, joint: 0, sides: 8 }, dodecahedron);
    expect(borders(bare)).toBe(0);
    // Thirty prisms: the area of a regular octagon times the edge.
    const edge = 4 / (Math.sqrt(3) * (1 + Math.sqrt(5)));
    expect(volume(bare)).toBeCloseTo(30 * edge * 0.5 * 8 * 0.05 ** 2 * Math.sin(Math.PI / 4), 5);
    expect(faces(run('struts', { rod: 0.05, joint: 0, sides: 6, keep: true }, dodecahedron))).toBe(12 + 30 * 8);
  });
  it('shading by angle: a cube has six flat sides from 90° down, a ball of small angles is smooth', () => {
    const groups = (angle: number, m: Mesh) =>
      new Set(run('shade', { angle }, m).connectivity.shadingGroups ?? [0]).size;
    const big = run('box', { size: [1, 1, 1], segments: 3 });
    expect([0, 30, 89, 91, 180].map((a) => groups(a, big))).toEqual([54, 6, 6, 1, 1]);
    expect(groups(30, run('geodesic', { frequency: 12 }))).toBe(1);
    expect(groups(0, dodecahedron)).toBe(12);
  });
});

describe('links of very many pairs', () => {
  it('are refused with how many there are, before any is made', () => {
    // 4,000 points in a metre, all within reach of each other: 7,998,000 pairs, in the time it takes to count them.
    const p = Array.from({ length: 12_000 }, (_, i) => ((i * 7919) % 9973) / 9973);
    expect(() => linksBetween(p, 5, 6)).toThrow(TooManyPairs);
    try {
      linksBetween(p, 5, 6);
    } catch (error) {
      expect(error).toMatchObject({ pairs: 7_998_000, counted: true });
    }
    // 60,000 are not even counted.
    const many = Array.from({ length: 180_000 }, (_, i) => ((i * 7919) % 99_991) / 99_991);
    expect(() => linksBetween(many, 5, 6)).toThrow(TooManyPairs);
    const mesh = run('nest', { copies: 3 }, run('torus', { ringSegments: 80, pipeSegments: 32 }));
    expect(() => run('links', { radius: 1.5 }, mesh)).toThrow(
      /pairs of points are nearer than the radius, and at most 2M/,
    );
  });
});
