import { Euler, Matrix4, MathUtils, Quaternion, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import type { Mesh } from '../../shape/mesh';
import { copyCount } from '../../copies/copies';
import { defaultsOf } from '../../declare/params';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { form, step } from '../../fixtures/forms';
import { withoutKernels } from '../../kernels/kernels';
import { newRibbon, newStep, type StepDoc } from '../../piece/piece';
import { vary } from './vary';
import { changedInKernels, inKernels } from './vary-run';

const body = form('platonic', { radius: 0.1 });
const grid = (columns: number, rows: number) => step('repeat-grid', body, { columns, rows, spacing: [0.31, 1, 0.27] });
/** Copies that lean, of different sizes along their axes. */
const crooked = (mesh: Mesh) =>
  withoutKernels(() =>
    [
      { what: 'turn', turnTo: [40, -70, 200], by: 'chance' },
      { what: 'stretch', stretchTo: [0.4, 2, 1], by: 'chance', seed: 4 },
    ].reduce((m, v) => step('vary', m, v), mesh),
  );
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]) / Math.max(1, Math.abs(b[i])));
  return most;
};

const CHANGES: Record<string, object> = {
  shift: { what: 'shift', own: false, shiftFrom: [1, 0, -2], shiftTo: [0, 3, 0.5] },
  'shift along their own axes': { what: 'shift', own: true, shiftTo: [0.3, -1, 2] },
  turn: { what: 'turn', turnFrom: [-30, 0, 0], turnTo: [400, -725, 90] },
  'turn about one axis': { what: 'turn', turnTo: [0, 90, 0] },
  size: { what: 'size', sizeFrom: 2, sizeTo: 0 },
  'size per axis': { what: 'stretch', stretchFrom: [1, 0, 3], stretchTo: [2, 1, 0.2] },
};
const WAYS: object[] = [
  { by: 'same' },
  { by: 'order', runs: 'back', times: 3 },
  { by: 'chance', seed: 9 },
  { by: 'place', axis: 'x' },
  { by: 'place', axis: 'out', lowAt: 3, highAt: -1, clamp: true },
  { by: 'noise', scale: 2, octaves: 3, clamp: true },
  { by: 'noise', noise: 'cellular', contrast: 3 },
];

describe('changes by kernels', () => {
  // Fewer than one block of copies, exactly one, and a little more than two; odd numbers of them.
  describe.each([
    [9, 9],
    [64, 64],
    [91, 91],
  ])('to %i × %i copies', (columns, rows) => {
    const upright = grid(columns, rows);
    it.each(Object.entries(CHANGES))('%s as the plain loops do, dealt out in every way', (_, change) => {
      for (const mesh of [upright, crooked(upright)])
        for (const way of WAYS) {
          const values = { ...change, ...way };
          const fast = step('vary', mesh, values).copies!;
          const plain = withoutKernels(() => step('vary', mesh, values)).copies!;
          expect(copyCount(fast)).toBe(columns * rows);
          expect(farthest(fast.matrices, plain.matrices), JSON.stringify(way)).toBeLessThan(1e-5);
          expect(fast.matrices.every(Number.isFinite)).toBe(true);
        }
    });
    it('colours: the same steps of the blend, but where noise lies between two of them', () => {
      for (const way of WAYS) {
        const values = { what: 'colour', ...way };
        const fast = step('vary', upright, values).copies!.channels!.baseColor!;
        const plain = withoutKernels(() => step('vary', upright, values)).copies!.channels!.baseColor!;
        expect(farthest(fast, plain)).toBeLessThan('noise' === (way as { by: string }).by ? 0.01 : 1e-7);
        expect(new Set(fast).size).toBeGreaterThan((way as { by: string }).by === 'same' ? 1 : 12);
      }
    });
  });
  it('turn like quaternions of an independent library (three.js): x, then y, then z about own axes', () => {
    const mesh = grid(9, 9);
    const got = step('vary', mesh, { what: 'turn', turnTo: [30, -50, 110], by: 'same' }).copies!.matrices;
    const turn = new Quaternion().setFromEuler(
      new Euler(...([30, -50, 110].map(MathUtils.degToRad) as [number, number, number]), 'ZYX'),
    );
    for (const i of [0, 40, 80]) {
      const m = mesh.copies!.matrices;
      const expected = new Matrix4().compose(
        new Vector3(m[16 * i + 12], m[16 * i + 13], m[16 * i + 14]),
        turn,
        new Vector3(1, 1, 1),
      );
      expect(farthest(got.subarray(16 * i, 16 * i + 16), expected.elements)).toBeLessThan(1e-6);
    }
  });
  it('turn by quarters exactly', () => {
    for (const [degrees, x, z] of [
      [90, 0, -1],
      [180, -1, 0],
      [270, 0, 1],
      [-90, 0, 1],
      [36_000, 1, 0],
      [36_090, 0, -1],
    ]) {
      const m = step('vary', grid(9, 9), { what: 'turn', turnTo: [0, degrees, 0], by: 'same' }).copies!.matrices;
      expect([m[0] + 0, m[2] + 0], `${degrees}`).toEqual([x, z]);
    }
  });
  it('are left to the plain loops where copies follow late, on springs, or only in a region', () => {
    const usual = defaultsOf(vary.params);
    expect(inKernels({ ...usual, what: 'turn' } as never)).toBe(true);
    for (const not of [
      { what: 'late' },
      { what: 'source' },
      { behind: 2 },
      { springy: 'all' },
      { region: 'ball' },
      { by: 'noise', noise: 'wood' },
    ])
      expect(inKernels({ ...usual, ...not } as never), JSON.stringify(not)).toBe(false);
    const mesh = grid(3, 3);
    expect(
      changedInKernels([usual] as never, mesh.copies!, { clock: { frame: 0, frames: 10 }, detail: 'final' }),
    ).toBeNull();
  });
});

describe('a row of changes to many copies', () => {
  const loop = { frames: 40, fps: 20 };
  const noise = { by: 'noise', scale: 2, rate: 1 };
  const row = [
    newStep('vary', { what: 'shift', shiftTo: [0, 1, 0], own: false, ...noise } as never),
    newStep('vary', { what: 'turn', turnTo: [0, 90, 30], seed: 1, ...noise } as never),
    { ...newStep('vary', { what: 'size', sizeTo: 9 } as never), on: false },
    newStep('vary', { what: 'shift', shiftTo: [0.2, 0, 0], own: true, by: 'place' } as never),
    newStep('vary', { what: 'size', sizeTo: 0.2, by: 'chance' } as never),
    newStep('vary', { what: 'colour', by: 'place', axis: 'y' } as never),
  ];
  const ribbon = (...steps: StepDoc[]) => ({
    ...newRibbon('platonic', 0),
    steps: [newStep('platonic'), newStep('repeat-grid', { columns: 151, rows: 151 }), ...steps],
  });
  const at = (steps: StepDoc[], frame: number) =>
    evaluateRibbon(ribbon(...steps), loop, frame, 'final', new MeshCache());

  it('is what one after the other makes, bit for bit, and so is its key', () => {
    const all = at(row, 7);
    // A step that changes nothing but is done by itself parts the row.
    const parted = row.flatMap((s) => [
      s,
      newStep('vary', { what: 'size', sizeFrom: 1, sizeTo: 1, region: 'ball' } as never),
    ]);
    const alone = at(parted, 7);
    expect(all.mesh.copies!.matrices).toEqual(alone.mesh.copies!.matrices);
    expect(all.mesh.copies!.channels).toEqual(alone.mesh.copies!.channels);
    expect(all.key).toBe(at(row, 7).key);
    expect(all.key).not.toBe(at(row, 8).key);
  });
  it('tells the count on the card of each step that is on', () => {
    const { notes } = at(row, 3);
    expect(notes.map((n) => n.step)).toEqual([expect.any(String), ...row.filter((s) => s.on).map((s) => s.id)]);
    for (const n of notes) expect(n.copies).toBe(151 * 151);
  });
  it('closes bit for bit, and keeps what stands still before it', () => {
    const cache = new MeshCache();
    const still = newStep('vary', { what: 'size', sizeTo: 0.5, by: 'chance' } as never);
    const r = ribbon(still, ...row);
    const first = evaluateRibbon(r, loop, 0, 'final', cache).mesh.copies!;
    const last = evaluateRibbon(r, loop, 40, 'final', cache).mesh.copies!;
    expect(last.matrices).toEqual(first.matrices);
    const prefix = { ...r, steps: r.steps.slice(0, 3) };
    expect(evaluateRibbon(prefix, loop, 0, 'final', cache).mesh).toBe(
      evaluateRibbon(prefix, loop, 5, 'final', cache).mesh,
    );
  });
});

describe('sizes that would fall below nothing', () => {
  const swell = { by: 'place', axis: 'x', lowAt: -0.5, highAt: 0 };
  it.each([
    ['of a copy as a whole', { what: 'size', sizeFrom: 1, sizeTo: 0, ...swell }],
    ['along its own axes', { what: 'stretch', stretchFrom: [1, 1, 2], stretchTo: [0, 1, 0], ...swell }],
  ])('are none %s: no copy is turned inside out', (_, values) => {
    const copies = grid(9, 3);
    for (const mesh of [step('vary', copies, values), withoutKernels(() => step('vary', copies, values))]) {
      const { matrices } = mesh.copies!;
      let gone = 0;
      for (let o = 0; o < matrices.length; o += 16) {
        // The grid is upright, so that sizes stand on the diagonal.
        for (const k of [0, 5, 10]) expect(matrices[o + k]).toBeGreaterThanOrEqual(0);
        if (matrices[o] === 0) gone++;
      }
      expect(gone).toBeGreaterThan(10);
      expect(gone).toBeLessThan(27);
    }
  });
});
