import { describe, expect, it } from 'vitest';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import type { Values } from '../../piece/piece';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '../../piece/piece';
import type { Mesh } from '../../shape/mesh';
import { Between } from './interpolation';
import { instantPictures } from './exposure';

const wave = (low: number, high: number) => ({
  ...{ motion: 'wave', shape: 'sine', width: 50, low, high, turns: 1, phase: 0, rest: 0 },
});
const piece = (shutter: number, ...steps: [string, Values][]): Piece => {
  const base = newPiece('Between');
  return {
    ...base,
    loop: { frames: 10, fps: 25 },
    scene: {
      ...base.scene,
      cameras: base.scene.cameras.map((c) => ({ ...c, values: { ...c.values, shutter } })),
    },
    ribbons: [{ ...newRibbon(steps[0][0], 0), id: 'one', steps: steps.map(([k, v], i) => newStep(k, v, `s${i}`)) }],
  };
};
const picturesOf = (p: Piece, samples: number) => {
  const cache = new MeshCache();
  const shapes = (r: RibbonDoc, f: number) => evaluateRibbon(r, p.loop, f, 'draft', cache).mesh;
  return { pictures: instantPictures(p, 3, shapes, samples), shapes };
};
const middleOf = ({ positions, copies }: Mesh) => (copies ? copies.matrices[12] : positions[0]);

describe('the instants of an exposure', () => {
  const going: [string, Values][] = [
    ['sphere', { radius: 0.1, meridians: 8, parallels: 4 }],
    ['place', { shift: [wave(-3, 3), 0, 0] }],
  ];
  it('are as many as samples, 8 to 64, each at another place', () => {
    for (const [samples, count] of [
      [1, 8],
      [16, 16],
      [64, 64],
      [1000, 64],
    ]) {
      const { pictures } = picturesOf(piece(180, ...going), samples);
      expect(pictures).toHaveLength(count);
      const places = pictures.map((p) => middleOf(p.ribbons[0].shape)).sort((a, b) => a - b);
      expect(new Set(places).size).toBe(count);
      // Evenly: no gap is much wider than the others.
      const gaps = places.slice(1).map((x, i) => x - places[i]);
      expect(Math.max(...gaps)).toBeLessThan(2.5 * Math.min(...gaps));
    }
    expect(picturesOf(piece(0, ...going), 64).pictures).toHaveLength(1);
  });
  it('are fewer of a large scene', () => {
    const { pictures } = picturesOf(piece(180, ['sphere', { meridians: 400, parallels: 200 }], going[1]), 64);
    expect(pictures.length).toBeLessThan(64);
    expect(pictures.length).toBeGreaterThanOrEqual(8);
  });
  it('show shapes where they are at that instant, to a hundredth of the way', () => {
    for (const steps of [
      going,
      [...going, ['repeat-line', { count: 5 }], ['spin', { turns: 1 }]] as [string, Values][],
    ]) {
      const p = piece(180, ...steps);
      const { pictures, shapes } = picturesOf(p, 64);
      const ribbon = p.ribbons[0];
      const [begin, end] = [2.75, 3.25].map((f) => middleOf(shapes(ribbon, f)));
      const sorted = pictures.map((q) => middleOf(q.ribbons[0].shape)).sort((a, b) => a - b);
      const exact = Array.from({ length: 64 }, (_, j) => middleOf(shapes(ribbon, 3 + ((j + 0.5) / 64 - 0.5) / 2)));
      exact.sort((a, b) => a - b);
      for (let j = 0; j < 64; j++) expect(Math.abs(sorted[j] - exact[j])).toBeLessThan(0.01 * Math.abs(end - begin));
    }
  });
});

describe('between the ends of stretches', () => {
  const connectivity = { vertexCount: 1, faceStart: new Uint32Array(1), corners: new Uint32Array(0) };
  const point = (x: number): Mesh => ({ connectivity, positions: Float32Array.of(x, 0, 0) });
  const at = (places: number[], t: number) => new Between(places.map(point)).at(t)!.positions[0];
  it('what goes on goes straight; what jumps is here and then there', () => {
    expect(at([0, 1, 2, 3], 1.5)).toBe(1.5);
    expect(at([0, 1, 2, 3], 3)).toBe(3);
    // What stands, is elsewhere, and stands; and what begins to move.
    expect([1.4, 1.6].map((t) => at([2, 2, 5, 5], t))).toEqual([2, 5]);
    expect(at([2, 2, 2, 3], 2.5)).toBe(2.5);
    // As a copy that comes to the end of its row begins anew.
    expect([1.4, 1.6].map((t) => at([2, 3, -3, -2], t))).toEqual([3, -3]);
  });
  it('copies go with those of the same chance, wherever they are in the list; those that are born or gone stand', () => {
    const row = (list: [number, number][]): Mesh => {
      const matrices = Float32Array.from(list.flatMap(([, x]) => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, 0, 0, 1]));
      const source = point(0);
      return {
        ...source,
        copies: {
          sources: [source],
          source: new Uint16Array(list.length),
          matrices,
          order: new Float32Array(list.length),
          places: list.length,
          ids: Uint32Array.from(list.map(([id]) => id)),
        },
      };
    };
    const between = new Between([
      row([
        [7, 0],
        [8, 10],
      ]),
      row([
        [8, 12],
        [9, 50],
      ]),
    ]);
    const places = (t: number) => {
      const { ids, matrices } = between.at(t)!.copies!;
      return Object.fromEntries([...ids!].map((id, i) => [id, matrices[16 * i + 12]]));
    };
    expect(places(0.25)).toEqual({ 7: 0, 8: 10.5 });
    expect(places(0.75)).toEqual({ 8: 11.5, 9: 50 });
  });
  it('what is not there, or another shape, is that of the nearer end', () => {
    const other: Mesh = { connectivity: { ...connectivity }, positions: Float32Array.of(5, 0, 0) };
    const between = new Between([point(0), other]);
    expect([0.4, 0.6].map((t) => between.at(t)!.positions[0])).toEqual([0, 5]);
    expect(new Between([point(0), undefined]).at(0.9)).toBeUndefined();
  });
});
