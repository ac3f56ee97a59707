import { describe, expect, it } from 'vitest';
import { areasOf } from '../copies/areas';
import { centresOf, copyCount } from '../copies/copies';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { standsStill } from '../evaluate/still';
import { form } from '../fixtures/forms';
import { linkPiece } from '../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc, type StepDoc } from '../piece/piece';
import { ribbonClosure } from '../seam/measure';
import { chancesOf, fromCurves, fromShape, fromSurface, within } from './births';

const chances = chancesOf(5);
const many = <T>(make: (chance: (salt: number) => number) => T, n = 4000): T[] =>
  Array.from({ length: n }, (_, i) => make(chances(i)));
const share = (list: readonly boolean[]) => list.filter(Boolean).length / list.length;
/** Four standard errors of a share p of n. */
const error = (p: number, n = 4000) => 4 * Math.sqrt((p * (1 - p)) / n);

describe('where particles are released', () => {
  it('a disc by area, a ball by volume, a ring on its rim, a box anywhere in it', () => {
    const disc = many((c) => fromShape('disc', [1, 2, 3], 2, c));
    expect(disc.every(({ at }) => at[1] === 2 && Math.hypot(at[0] - 1, at[2] - 3) <= 2)).toBe(true);
    expect(Math.abs(share(disc.map(({ at }) => Math.hypot(at[0] - 1, at[2] - 3) < 1)) - 0.25)).toBeLessThan(
      error(0.25),
    );
    const ball = many((c) => fromShape('ball', [0, 0, 0], 1, c));
    expect(Math.abs(share(ball.map(({ at }) => Math.hypot(...at) < 0.5)) - 0.125)).toBeLessThan(error(0.125));
    for (const { at, out } of many((c) => fromShape('ring', [0, 0, 0], 1.5, c), 50)) {
      expect(Math.hypot(at[0], at[2])).toBeCloseTo(1.5, 9);
      expect(out[0] * 1.5).toBeCloseTo(at[0], 9);
    }
    const box = many((c) => fromShape('box', [0, 0, 0], 1, c));
    for (const k of [0, 1, 2])
      expect(Math.abs(share(box.map(({ at }) => at[k] < -0.5)) - 0.25)).toBeLessThan(error(0.25));
    expect(many((c) => fromShape('point', [4, 5, 6], 9, c), 3).every(({ at }) => at.join() === '4,5,6')).toBe(true);
  });
  it('a surface by area, along its normal; a curve by length, along it', () => {
    const globe = form('sphere', { radius: 1, meridians: 48, parallels: 24 });
    const rest = areasOf(globe);
    const born = many((c) => fromSurface(globe, rest, c)!);
    // Archimedes: equal slices of a sphere have equal areas.
    for (const [low, high] of [
      [-1, -0.5],
      [0, 0.5],
    ])
      expect(Math.abs(share(born.map(({ at }) => at[1] > low && at[1] <= high)) - 0.25)).toBeLessThan(
        error(0.25) + 0.004,
      );
    for (const { at, out } of born.slice(0, 50))
      expect(out.reduce((s, x, k) => s + x * at[k], 0)).toBeGreaterThan(0.98);
    const circle = form('outline', { outline: 'circle', size: 1 });
    const on = many((c) => fromCurves(circle, c)!);
    const radius = Math.hypot(...on[0].at);
    expect(Math.abs(share(on.map(({ at }) => at[0] > 0)) - 0.5)).toBeLessThan(error(0.5));
    for (const { at, out } of on.slice(0, 50)) {
      expect(Math.hypot(...at)).toBeCloseTo(radius, 1);
      expect(Math.abs(out.reduce((s, x, k) => s + x * at[k], 0))).toBeLessThan(0.05);
    }
  });
  it('directions are even over the cap of a cone: half of its area lies within the angle that halves it', () => {
    const angle = 70;
    const ways = many((c) => within([1, 2, -1], angle, c(1), c(2)));
    const d = [1, 2, -1].map((x) => x / Math.sqrt(6));
    const cosines = ways.map((w) => w.reduce((s, x, k) => s + x * d[k], 0));
    const least = Math.cos((angle * Math.PI) / 180);
    expect(Math.min(...cosines)).toBeGreaterThanOrEqual(least - 1e-9);
    expect(Math.abs(share(cosines.map((c) => c > (1 + least) / 2)) - 0.5)).toBeLessThan(error(0.5));
    ways.slice(0, 20).forEach((w) => expect(Math.hypot(...w)).toBeCloseTo(1, 9));
  });
});

const wave = (low: number, high: number) =>
  ({ motion: 'wave', shape: 'sine', width: 50, low, high, turns: 1, phase: 0, rest: 0 }) as never;
const piece = (steps: StepDoc[], ...others: RibbonDoc[]): Piece => ({
  ...newPiece(),
  loop: { frames: 40, fps: 20 },
  ribbons: [
    { ...newRibbon('box', 0), steps: [newStep('box', { segments: 1, size: [0.1, 0.1, 0.1] }), ...steps] },
    ...others,
  ],
});
const at = (p: Piece, frame: number) =>
  evaluateRibbon(linkPiece(p).ribbons[0], p.loop, frame, 'draft', new MeshCache());
const still = { growIn: 0, growOut: 0, sizeSpread: 0, speedSpread: 0, turned: 'no' };

describe('streams from ribbons that move', () => {
  const globe = {
    ...newRibbon('sphere', 1),
    id: 'globe',
    steps: [newStep('sphere', { radius: wave(1, 2), meridians: 24, parallels: 12 })],
  };
  it('particles set out from the surface as it was when they were born, and close', () => {
    const p = piece(
      [
        newStep('stream', {
          ...still,
          from: 'surface',
          other: 'globe',
          outwards: true,
          by: 'every',
          every: 10,
          speed: 0,
          cone: 0,
        }),
      ],
      globe,
    );
    const copies = at(p, 0).mesh.copies!;
    // Released at frames 0, 10, 20 and 30, when the radius is 1.5, 2, 1.5 and 1; standing still since.
    const radii = Array.from({ length: 4 }, (_, i) => Math.hypot(...centresOf(copies).slice(3 * i, 3 * i + 3)));
    [1.5, 2, 1.5, 1].forEach((r, i) => expect(radii[[...copies.ids!].indexOf(i)]).toBeCloseTo(r, 1));
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('exact');
  });
  it('a nozzle that moves releases from where it is', () => {
    const p = piece([
      newStep('stream', { ...still, from: 'point', source: [wave(-1, 1), 0, 0], by: 'every', every: 10, speed: 0 }),
    ]);
    const copies = at(p, 0).mesh.copies!;
    const x = (slot: number) => centresOf(copies)[3 * [...copies.ids!].indexOf(slot)];
    [0, 1, 0, -1].forEach((s, slot) => expect(x(slot)).toBeCloseTo(s, 5));
  });
  it('they land on a ribbon and lie there', () => {
    const ground = { ...newRibbon('box', 1), id: 'ground', steps: [newStep('box', { size: [4, 1, 4], segments: 1 })] };
    const p = piece(
      [
        newStep('stream', {
          ...still,
          from: 'point',
          source: [0, 2, 0],
          direction: [0, -1, 0],
          cone: 0,
          speed: 3,
          life: 5,
          count: 1,
          ground: 'ribbon',
          landing: 'ground',
          stays: 0.4,
        }),
      ],
      ground,
    );
    // From 2 m down to the top of the box at 0.5 m, at 3 m a loop: half a loop.
    expect(centresOf(at(p, 10).mesh.copies!)[1]).toBeCloseTo(1.25, 4);
    expect(centresOf(at(p, 30).mesh.copies!)[1]).toBeCloseTo(0.5, 4);
    expect(copyCount(at(p, 37).mesh.copies!)).toBe(0);
  });
  it('plays its own motions from its birth, where that is asked for', () => {
    const p = piece([
      newStep('place', { shift: [0, wave(-1, 1), 0] }),
      newStep('stream', { ...still, from: 'point', by: 'every', every: 10, speed: 0, plays: true }),
    ]);
    const { sources, source, ids } = at(p, 0).mesh.copies!;
    const height = (slot: number) => sources[source[[...ids!].indexOf(slot)]].positions[1] + 0.05;
    // Ages 0, 30, 20 and 10 frames of 40.
    [0, -1, 0, 1].forEach((s, slot) => expect(height(slot)).toBeCloseTo(s, 5));
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('exact');
  });
  it('look the way they fly, and change colour while they live', () => {
    const p = piece([
      newStep('stream', {
        ...still,
        from: 'point',
        direction: [0, 1, 0],
        cone: 80,
        count: 20,
        speed: 1,
        turned: 'ahead',
        tinted: true,
        young: '#ff0000',
        old: '#0000ff',
      }),
    ]);
    const { matrices, channels, ids } = at(p, 0).mesh.copies!;
    const colours = channels!.baseColor;
    for (let i = 0; i < 20; i++) {
      const place = [...matrices.subarray(16 * i + 12, 16 * i + 15)];
      const r = Math.hypot(...place);
      if (r > 1e-6) for (let k = 0; k < 3; k++) expect(matrices[16 * i + k]).toBeCloseTo(place[k] / r, 4);
    }
    const [young, old] = [[...ids!].indexOf(0), [...ids!].indexOf(1)];
    expect([...colours!.subarray(3 * young, 3 * young + 3)]).toEqual([1, 0, 0]);
    expect(colours![3 * old + 2]).toBeGreaterThan(0.85);
  });
});

describe('what stands still', () => {
  it('is told from values, from what changes by itself and from other ribbons', () => {
    expect(standsStill([newStep('box'), newStep('twist', { angle: 40 })])).toBe(true);
    expect(standsStill([newStep('box'), newStep('twist', { angle: wave(0, 40) })])).toBe(false);
    expect(standsStill([newStep('place', { shift: [0, wave(0, 1), 0] })])).toBe(false);
    expect(standsStill([newStep('displace', { rate: 0 })])).toBe(true);
    expect(standsStill([newStep('displace', { rate: 1 })])).toBe(false);
    expect(standsStill([{ ...newStep('displace', { rate: 1 }), on: false }])).toBe(true);
    const moving: RibbonDoc = { ...newRibbon('box', 0), steps: [newStep('spin')] };
    expect(standsStill([{ ...newStep('along', { other: 'x' }), others: { other: moving } }])).toBe(false);
  });
});
