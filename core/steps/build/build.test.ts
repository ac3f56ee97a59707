import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { eulerCharacteristic, surfaceArea, volume } from '../../shape/measure';
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
