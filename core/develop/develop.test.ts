import { describe, expect, it } from 'vitest';
import { randomSource } from '../maths/random';
import { plainMaths } from '../pattern/maths';
import type { PictureEffectAt } from '../scene/kind';
import { viewTransform } from '../scene/view-transform';
import { camera } from '../trace/fixture';
import { bloomGain, bloomOf } from './bloom';
import { developed } from './develop';
import { displayEffects, grainAt } from './effects';
import { emptyLight, lightIn, putTile, wholeLight } from './light';

const scene = {
  camera: { ...camera, exposure: 2 },
  backdrop: { type: 'colour', colour: '#3A86B7' },
  picture: [] as PictureEffectAt[],
} as const;
/** Two pixels of four samples: one all covered by a grey, one half. */
const sums = Float64Array.of(0.4, 0.4, 0.4, 4, 0, 4, 0, 0, 0, 0, 0.2, 0.2, 0.2, 2, 0, 4, 0, 0, 0, 0);
const two = lightIn(sums, 2, 1);

describe('traced light as it is shown', () => {
  it('is light times exposure through the view transform, over the backdrop by what it covers', () => {
    const shown = viewTransform(0.2, 0.2, 0.2).map((x) => 255 * x);
    const pixels = developed(two, { scene });
    for (let k = 0; k < 3; k++) {
      expect(Math.abs(pixels[k] - shown[k])).toBeLessThanOrEqual(1);
      const behind = [0x3a, 0x86, 0xb7][k];
      expect(Math.abs(pixels[4 + k] - (shown[k] + behind) / 2)).toBeLessThanOrEqual(1);
    }
    expect([pixels[3], pixels[7]]).toEqual([255, 255]);
  });
  it('leaves the backdrop exact where nothing is, and out where it is not wanted', () => {
    expect([...developed(emptyLight(2, 1), { scene })]).toEqual([0x3a, 0x86, 0xb7, 255, 0x3a, 0x86, 0xb7, 255]);
    const clear = developed(two, { scene, clear: true });
    expect([clear[3], clear[7]]).toEqual([255, 128]);
    // Not premultiplied: what is half there has its whole colour.
    expect(Math.abs(clear[4] - clear[0])).toBeLessThanOrEqual(1);
  });
  it('covers no more by what is done to its colours: lifted blacks and grain are on what is there alone', () => {
    const lifted: PictureEffectAt[] = [
      { type: 'grade', lift: [0.1, 0.1, 0.1], gamma: [1, 1, 1], gain: [1, 1, 1] },
      { type: 'grain', amount: 0.5, size: 1, throw: 0.3 },
    ];
    const how = { scene: { ...scene, picture: lifted }, clear: true };
    expect([...developed(emptyLight(40, 40), how)].every((x) => x === 0)).toBe(true);
    const clear = developed(two, how);
    expect([clear[3], clear[7]]).toEqual([255, 128]);
    // Each is graded as the whole colour that it is.
    const graded = developed(two, { scene: { ...scene, picture: [lifted[0]] }, clear: true });
    expect(Math.abs(graded[4] - graded[0])).toBeLessThanOrEqual(1);
    expect(graded[0]).toBeGreaterThan(developed(two, { scene, clear: true })[0] + 5);
  });
  it('shows light that covers nothing over what is behind it, and as coverage where nothing is', () => {
    const veiled = lightIn(Float64Array.of(0, 0, 0, 0, 0, 4, 0.4, 0.2, 0, 0, 0.4, 0.4, 0.4, 4, 0, 4, 0, 0, 0, 0), 2, 1);
    const pixels = developed(veiled, { scene });
    expect(pixels[0]).toBeGreaterThan(0x3a + 10);
    expect(pixels[2]).toBeGreaterThanOrEqual(0xb7 - 2);
    const clear = developed(veiled, { scene, clear: true });
    expect(clear[0]).toBe(255);
    expect(clear[3]).toBeGreaterThan(100);
    expect(clear[3]).toBeLessThan(255);
    expect([...wholeLight(veiled)].map((x) => Number(x.toFixed(6)))).toEqual([0.1, 0.05, 0, 0, 0.1, 0.1, 0.1, 1]);
  });
  it('as light it is the mean of its samples, premultiplied and before exposure, each tile in its place', () => {
    expect([...two.values].map((x) => Number(x.toFixed(6)))).toEqual([0.1, 0.1, 0.1, 1, 0.05, 0.05, 0.05, 0.5]);
    const whole = emptyLight(3, 2);
    putTile(whole, { x: 1, y: 1, width: 2, height: 1 }, sums);
    expect([...whole.values.subarray(16)]).toEqual([...two.values]);
    expect([...whole.values.subarray(0, 16)].every((x) => x === 0)).toBe(true);
  });
});

describe('what is done to the finished picture', () => {
  const size = { width: 200, height: 100 };
  const applied = (e: PictureEffectAt, c: number[], u = 0.5, v = 0.5) => {
    const out = [...c];
    for (const effect of displayEffects([e], size)) effect(out, u, v);
    return out;
  };
  it('a vignette leaves the middle, and darkens the corners by its amount', () => {
    const e = { type: 'vignette', amount: 0.5, reach: 0.6 } as const;
    expect(applied(e, [0.4, 0.5, 0.6])).toEqual([0.4, 0.5, 0.6]);
    expect(applied(e, [1, 1, 1], 0, 0)[0]).toBeLessThan(0.56);
  });
  it('neutral grades, curves and looks leave every colour', () => {
    const flat: PictureEffectAt[] = [
      { type: 'grade', lift: [0, 0, 0], gamma: [1, 1, 1], gain: [1, 1, 1] },
      { type: 'levels', heights: [0, 0.25, 0.5, 0.75, 1], slopes: [1, 1, 1, 1, 1], of: [1, 1, 1] },
      { type: 'look', contrast: 0, saturation: 1, warmth: 0, lift: 0 },
    ];
    for (const e of flat)
      applied(e, [0.1, 0.37, 0.93]).forEach((c, k) => expect(c).toBeCloseTo([0.1, 0.37, 0.93][k], 12));
  });
  it('a curve goes through the heights that were set', () => {
    const heights = [0.1, 0.2, 0.6, 0.7, 0.9];
    const e = { type: 'levels', heights, slopes: [0.4, 0.6, 0.5, 0.4, 0.8], of: [1, 0, 1] } as const;
    heights.forEach((h, i) => {
      const [r, g, b] = applied(e, [i / 4, i / 4, i / 4]);
      expect(r).toBeCloseTo(h, 12);
      expect(b).toBeCloseTo(h, 12);
      expect(g).toBe(i / 4);
    });
  });
  it('grain lies about nothing, is another at every place, and the same at the same number', () => {
    const random = randomSource(7);
    let [sum, squares] = [0, 0];
    for (let i = 0; i < 20_000; i++) {
      const g = grainAt(plainMaths, Math.floor(2000 * random()), Math.floor(2000 * random()), 731);
      sum += g;
      squares += g * g;
      expect(Math.abs(g)).toBeLessThanOrEqual(1);
    }
    // The sum of two even throws, less one, has a variance of 1/6.
    expect(Math.abs(sum / 20_000)).toBeLessThan(0.01);
    expect(Math.abs(squares / 20_000 - 1 / 6)).toBeLessThan(0.01);
    expect(grainAt(plainMaths, 5, 9, 3)).toBe(grainAt(plainMaths, 5, 9, 3));
    expect(grainAt(plainMaths, 5, 9, 3)).not.toBe(grainAt(plainMaths, 5, 9, 4));
  });
  it('bloom of even light is even, by the sum of its halos, and of a point lies about it', () => {
    const even = { width: 64, height: 32, values: new Float32Array(4 * 64 * 32).fill(3) };
    const [r] = bloomOf(even, 1, 0.6)(0.3, 0.7);
    expect(r).toBeCloseTo((3 - 1) * bloomGain(0.6), 4);
    const point = emptyLight(64, 64);
    point.values.set([40, 20, 10, 1], 4 * (32 * 64 + 32));
    const halo = bloomOf(point, 0, 0.6);
    const at = (u: number) => [...halo(u, 33 / 64)];
    expect(at(0.52)[0]).toBeGreaterThan(at(0.62)[0]);
    expect(at(0.62)[0]).toBeGreaterThan(at(0.8)[0]);
    expect(at(0.52)[1] / at(0.52)[0]).toBeCloseTo(0.5, 5);
  });
});
