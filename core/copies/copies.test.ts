import { mat4, quat, vec3 } from 'gl-matrix';
import { describe, expect, it } from 'vitest';
import { form, step } from '../fixtures/forms';
import { boundsOf } from '../shape/measure';
import type { Copies, Mesh } from '../shape/mesh';
import { topologyOf } from '../shape/topology';
import { chanceOf, mix32 } from '../time/chance';
import { randomSource, randomUnitVector } from '../maths/random';
import { fromAxes, standing } from './basis';
import { beside } from './beside';
import { boundsShown, centresOf, facesShown, flattened } from './copies';
import { filtered, placeMatrix, repeatOver } from './places';
import { movedOn } from './move-on';
import { areaOn, insideOf, scatterIn, scatterOn } from './scatter';

const random = randomSource(77);
const ball = form('geodesic', { frequency: 2, radius: 0.2 });
const triples = (p: ArrayLike<number>) =>
  Array.from({ length: p.length / 3 }, (_, i) => [p[3 * i], p[3 * i + 1], p[3 * i + 2]]);
const far = (a: readonly number[], b: readonly number[]) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const positionsOn = (mesh: Mesh, { corners, shares }: ReturnType<typeof scatterOn>) =>
  Array.from({ length: shares.length / 2 }, (_, i) =>
    [0, 1, 2].map((k) => {
      const [a, b, c] = [0, 1, 2].map((q) => mesh.positions[3 * corners[3 * i + q] + k]);
      return a + shares[2 * i] * (b - a) + shares[2 * i + 1] * (c - a);
    }),
  );

describe('matrices of copies, against npm gl-matrix', () => {
  it('are size, then turn, then place; and lists of lists are products', () => {
    for (let n = 0; n < 50; n++) {
      const q = quat.setAxisAngle(quat.create(), randomUnitVector(random) as never, 6 * random());
      const [at, s] = [[random(), random(), random()] as const, 0.2 + random()];
      const ours = new Float32Array(16);
      placeMatrix(ours, 0, q[0], q[1], q[2], q[3], s, ...at);
      const theirs = mat4.fromRotationTranslationScale(mat4.create(), q, at as never, [s, s, s]);
      ours.forEach((x, i) => expect(x).toBeCloseTo(theirs[i], 5));
      const inner = repeatOver(
        { at: Float32Array.from([1, 2, 3]), turns: Float32Array.from(q), sizes: Float32Array.of(s) },
        { sources: [ball] },
      );
      const outer = repeatOver({ at: Float32Array.from(at), turns: Float32Array.from(q) }, { sources: [inner] });
      const second = mat4.multiply(
        mat4.create(),
        mat4.fromRotationTranslationScale(mat4.create(), q, at as never, [1, 1, 1]),
        mat4.fromRotationTranslationScale(mat4.create(), q, [1, 2, 3], [s, s, s]),
      );
      outer.copies!.matrices.forEach((x, i) => expect(x).toBeCloseTo(second[i], 4));
    }
  });
  it('turns from axes agree with the matrix they are made of', () => {
    for (let n = 0; n < 100; n++) {
      const y = randomUnitVector(random);
      const q = standing(y, randomUnitVector(random));
      const turned = vec3.transformQuat(vec3.create(), [0, 1, 0], q as never);
      expect(far([...turned], y)).toBeLessThan(1e-6);
      const m = mat4.fromQuat(mat4.create(), q as never);
      const again = fromAxes([m[0], m[1], m[2]], [m[4], m[5], m[6]], [m[8], m[9], m[10]]);
      expect(Math.abs(again.reduce((sum, x, k) => sum + x * q[k], 0))).toBeCloseTo(1, 6);
    }
  });
});

describe('chance', () => {
  it('mixes as MurmurHash3 does: its published 32-bit hashes of nothing under seeds 0, 1 and 0xffffffff', () => {
    // Verification values of MurmurHash3_x86_32 for the empty key, which is its finalizer alone.
    expect([0, 1, 0xffffffff].map(mix32)).toEqual([0, 0x514e28b7, 0x81f16f39]);
  });
  it('is even: a hundred thousand numbers in 100 bins, by chi-square', () => {
    const bins = new Array(100).fill(0);
    const chance = chanceOf(3);
    for (let i = 0; i < 100_000; i++) bins[Math.floor(100 * chance(i))]++;
    const chi = bins.reduce((s, n) => s + (n - 1000) ** 2 / 1000, 0);
    // Upper 0.1 % point for 99 degrees of freedom: 148.2 (tables of the chi-square distribution).
    expect(chi).toBeLessThan(148.2);
  });
});

describe('scattering', () => {
  const sheet = form('plane', { width: 4, depth: 4, columns: 8, rows: 8 });
  it('is even by area, by chi-square on a form whose faces differ a thousandfold', () => {
    const cone = form('cone', { bottom: 1.5, top: 0.05, height: 2, sides: 24, rows: 12, capRings: 3 });
    const count = 40_000;
    const places = positionsOn(cone, scatterOn(cone, count, 5, 0));
    // Bands of equal height on the side, and the two caps: expected shares by the areas of frusta and discs.
    const slant = Math.hypot(2, 1.45);
    const radius = (t: number) => 1.5 + t * (0.05 - 1.5);
    const expected = [
      ...Array.from({ length: 8 }, (_, b) => (Math.PI * (radius(b / 8) + radius((b + 1) / 8)) * slant) / 8),
      Math.PI * 1.5 ** 2,
      Math.PI * 0.05 ** 2,
    ];
    const seen = new Array(10).fill(0);
    for (const [, y] of places) seen[y < -0.9999 ? 8 : y > 0.9999 ? 9 : Math.min(7, Math.floor(((y + 1) / 2) * 8))]++;
    const total = expected.reduce((a, b) => a + b, 0);
    const chi = seen.reduce(
      (s, n, i) => s + (n - (count * expected[i]) / total) ** 2 / ((count * expected[i]) / total),
      0,
    );
    // Upper 0.1 % point for 9 degrees of freedom: 27.88.
    expect(chi).toBeLessThan(27.88);
    // 24 sides in place of a circle: a polygon's area is a little smaller.
    expect(areaOn(cone)).toBeCloseTo(total, 0);
  });
  it('keeps a least distance, by brute force, and packs as densely as random discs do', () => {
    const spread = 0.12;
    const places = positionsOn(sheet, scatterOn(sheet, 4000, 1, spread));
    let least = Infinity;
    places.forEach((p, i) => places.slice(i + 1).forEach((q) => (least = Math.min(least, far(p, q)))));
    expect(least).toBeGreaterThanOrEqual(spread);
    // Random sequential adsorption of discs jams at a cover of 0.547 (J. Feder, J. theor. Biol. 87, 1980);
    // darts thrown for a limited time come near it from below. Half discs at the border are let off.
    const cover = (places.length * Math.PI * (spread / 2) ** 2) / 4.12 ** 2;
    expect(cover).toBeGreaterThan(0.49);
    expect(cover).toBeLessThan(0.56);
  });
  it('is the same for the same seed, another for another', () => {
    const shares = (seed: number) => scatterOn(sheet, 50, seed, 0).shares;
    expect(shares(3)).toEqual(shares(3));
    expect(shares(3)).not.toEqual(shares(4));
  });
  it('inside a ball is inside, evenly: a half of the radius holds an eighth', () => {
    const globe = form('sphere', { radius: 1, meridians: 64, parallels: 32 });
    const p = triples(scatterIn(globe, 8000, 2, 0));
    expect(p).toHaveLength(8000);
    expect(Math.max(...p.map((x) => Math.hypot(...x)))).toBeLessThanOrEqual(1);
    const inner = p.filter((x) => Math.hypot(...x) < 0.5).length / 8000;
    expect(inner).toBeGreaterThan(0.125 - 3 * Math.sqrt((0.125 * 0.875) / 8000) - 0.002);
    expect(inner).toBeLessThan(0.125 + 3 * Math.sqrt((0.125 * 0.875) / 8000) + 0.002);
    const inside = insideOf(form('torus', { ringRadius: 1, pipeRadius: 0.3 }));
    expect([inside(1, 0, 0), inside(0, 0, 0), inside(0, 0, -1.1), inside(1.4, 0, 0)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });
});

describe('places', () => {
  const grid = (values: object) => triples(centresOf(step('repeat-grid', ball, values).copies!));
  it('of a hex grid: every copy inside has six neighbours at the spacing, and none nearer', () => {
    const p = grid({ layout: 'hex', columns: 9, rows: 9, spacing: [0.7, 1, 0.7] });
    const inside = p.filter(([x, , z]) => Math.abs(x) < 1.8 && Math.abs(z) < 1.6);
    expect(inside.length).toBeGreaterThan(15);
    for (const a of inside) {
      const d = p.map((b) => far(a, b)).sort((x, y) => x - y);
      for (let k = 1; k <= 6; k++) expect(d[k]).toBeCloseTo(0.7, 5);
      expect(d[7]).toBeGreaterThan(1.2);
    }
  });
  it('of a box have no copy inside, of layers all', () => {
    expect(grid({ layout: 'box', columns: 4, layers: 4, rows: 4 })).toHaveLength(64 - 8);
    expect(grid({ columns: 4, layers: 3, rows: 2 })).toHaveLength(24);
  });
  it('on a line 30 copies 75 apart end 2175 from the first; by total the same way is shared', () => {
    const line = (values: object) =>
      triples(centresOf(step('repeat-line', ball, { count: 30, centred: false, ...values }).copies!));
    expect(line({ way: [75, 0, 0] })[29][0]).toBeCloseTo(2175, 3);
    expect(line({ way: [75, 0, 0], by: 'total' })[29][0]).toBeCloseTo(75, 4);
    expect(line({ way: [75, 0, 0], by: 'total' })[1][0]).toBeCloseTo(75 / 29, 4);
  });
  it('on rings look outwards, at even angles', () => {
    const { copies } = step('repeat-rings', ball, { count: 7, rings: 2, more: 3, gap: 1 });
    const c = copies as Copies;
    expect(c.source).toHaveLength(7 + 10);
    triples(centresOf(c)).forEach((p, i) => {
      const r = i < 7 ? 1.5 : 2.5;
      expect(Math.hypot(p[0], p[2])).toBeCloseTo(r, 5);
      for (let k = 0; k < 3; k++) expect(c.matrices[16 * i + k]).toBeCloseTo(p[k] / r, 5);
    });
  });
  it('like seeds never line up: neighbours differ by the golden angle, 137.5°', () => {
    const p = triples(centresOf(step('repeat-rings', ball, { shape: 'seeds', count: 60, radius: 0.1 }).copies!));
    const angle = (i: number) => Math.atan2(-p[i][2], p[i][0]);
    for (let i = 1; i < 60; i++)
      expect((((angle(i) - angle(i - 1)) * 180) / Math.PI + 720) % 360).toBeCloseTo(137.50776, 2);
  });
  it('move on by whole places onto each other, to the last bit, forwards and back', () => {
    for (const advance of [1, 3, -2]) {
      const at = (frame: number) => Array.from({ length: 7 }, (_, i) => movedOn(advance, 7, { frame, frames: 30 })(i));
      expect(at(30).sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6]);
      expect(at(30)[0]).toBe((7 + (advance % 7)) % 7);
      expect(at(15)[0]).toBeCloseTo((7 + advance / 2) % 7, 12);
    }
  });
});

describe('copies as one form', () => {
  const ring = step('repeat-rings', ball, { count: 9 });
  it('have the faces and the box of all of them, and keep their connectivity while they move', () => {
    const one = flattened(ring);
    expect(one.connectivity.faceStart.length - 1).toBe(facesShown(ring));
    const box = boundsOf(one.positions)!;
    // The box of turned boxes is never smaller than that of the points.
    boundsShown(ring)!.max.forEach((m, k) => expect(m).toBeGreaterThanOrEqual(box.max[k] - 1e-6));
    expect(topologyOf(one.connectivity).borderEdge.every((b) => b === 0)).toBe(true);
    expect(flattened(step('repeat-rings', ball, { count: 9, angle: 13 })).connectivity).toBe(one.connectivity);
  });
  it('that are left out keep what chance knows them by', () => {
    const some = filtered(ring.copies!, (i) => i % 2 === 1);
    expect([...some.ids!]).toEqual([1, 3, 5, 7]);
    expect([...filtered(some, (i) => i > 1).ids!]).toEqual([5, 7]);
  });
  it('may have another shape beside them', () => {
    const both = beside(ring.copies!, form('box', { segments: 1 }));
    expect(both.copies!.source[9]).toBe(1);
    expect(facesShown(both)).toBe(facesShown(ring) + 6);
  });
});
