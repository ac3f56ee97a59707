import { describe, expect, it } from 'vitest';
import { provideAsset } from '../assets/store';
import { channelOf } from '../finish/part';
import { finishParts } from '../finish/parts/index';
import { patternAt } from '../finish/pattern-of';
import { newItem, type PatternDoc, type Values } from '../piece/piece';
import type { Hit } from './kind';
import { patterns } from './kinds/index';
import { layerParams } from './layer';
import { heightAt, patternedAt, structureOf } from './pattern-at';

const file = 'c'.repeat(64);
// Left half red, right half blue; the lower row half as light as displayed.
provideAsset(file, {
  type: 'image',
  image: {
    width: 2,
    height: 2,
    values: Uint8Array.of(255, 0, 0, 255, 0, 0, 255, 255, 188, 0, 0, 255, 0, 0, 188, 255),
  },
});

const colour = channelOf(finishParts.get('base'), 'colour')!;
const rough = channelOf(finishParts.get('base'), 'roughness')!;
const clock = { frame: 0, frames: 50 };

function layer(kind: string, values: Values, on: typeof rough = rough) {
  const params = layerParams(patterns.get(kind), on.target);
  const doc: PatternDoc = { ...newItem({ kind, params }, values), of: 'x' };
  return patternAt(doc, on.target, on.factor, clock);
}

const hit = (form: [number, number, number], uv: [number, number] = [0, 0]): Hit<number> => ({
  form,
  room: form,
  uv,
  facing: 1,
  depth: 1,
  occlusion: 0,
  copy: { order: 0, id: 0, at: [0, 0, 0] },
});

describe('a picture as a pattern', () => {
  const seen = (values: Values, at: Hit<number>) =>
    patternedAt([0, 0, 0], [layer('image', { file, ...values }, colour)], at).map((x) => Number(x.toFixed(3)));
  it('shows its own colours as light where it lies on the surface, upright and in its place', () => {
    expect(seen({}, hit([0, 0, 0], [0.25, 0.75]))).toEqual([1, 0, 0]);
    expect(seen({}, hit([0, 0, 0], [0.75, 0.75]))).toEqual([0, 0, 1]);
    // 188 of 255 is half the light (IEC 61966-2-1).
    expect(seen({}, hit([0, 0, 0], [0.25, 0.25]))[0]).toBeCloseTo(0.5, 2);
  });
  it('moved on by a whole picture it is the same, and shone on along an axis it is as wide as it is said to be', () => {
    const at = hit([0, 0, 0], [0.3, 0.8]);
    expect(seen({ along: 1, up: -2 }, at)).toEqual(seen({}, at));
    const flat = { laid: 'flat', axis: 'z', width: 4, height: 4 };
    expect(seen(flat, hit([-1, 1, 0]))).toEqual([1, 0, 0]);
    expect(seen(flat, hit([1, 1, 7]))).toEqual([0, 0, 1]);
    expect(seen({ laid: 'round', axis: 'y', height: 2 }, hit([0.3, 0.5, 0.4]))).toHaveLength(3);
  });
  it('is light and dark on a number: Rec. 709 weights, as seen', () => {
    const p = layer('image', { file, rampLow: 0, rampHigh: 100 });
    const grey = heightAt(p, hit([0, 0, 0], [0.25, 0.75]));
    expect(grey).toBeCloseTo(1.055 * 0.2126 ** (1 / 2.4) - 0.055, 6);
    expect(patternedAt([0.5], [p], hit([0, 0, 0], [0.25, 0.75]))[0]).toBeCloseTo(grey, 6);
  });
  it('another picture is no other shader, another way of laying it is; what is not here is black', () => {
    const one = layer('image', { file }, colour);
    expect(structureOf(layer('image', { file: 'd'.repeat(64) }, colour))).toBe(structureOf(one));
    expect(structureOf(layer('image', { file, laid: 'flat' }, colour))).not.toBe(structureOf(one));
    expect(seen({ file: 'd'.repeat(64) }, hit([0, 0, 0]))).toEqual([0, 0, 0]);
  });
});

describe('a region as a pattern', () => {
  const inside = (values: Values, at: [number, number, number]) =>
    heightAt(layer('region', { size: 1, soft: 0.4, ...values }), hit(at));
  it('is high inside and low outside, and half way on its border', () => {
    for (const shape of ['ball', 'box', 'tube', 'slab']) {
      const axis = shape === 'slab' ? 'x' : 'y';
      expect(inside({ shape, axis }, [0.1, 0.1, 0.1])).toBe(1);
      expect(inside({ shape, axis }, [1.3, 0, 0])).toBe(0);
      expect(inside({ shape, axis }, [1, 0, 0])).toBeCloseTo(0.5, 9);
    }
  });
  it('tubes and slabs go on without end, balls and boxes do not', () => {
    expect(inside({ shape: 'tube' }, [0.2, 500, 0])).toBe(1);
    expect(inside({ shape: 'slab' }, [500, 0.2, -90])).toBe(1);
    expect([inside({ shape: 'ball' }, [0, 5, 0]), inside({ shape: 'box' }, [0, 5, 0])]).toEqual([0, 0]);
  });
  it('goes where its middle goes', () => {
    expect(inside({ centre: [3, 0, 0] }, [3.2, 0, 0])).toBe(1);
    expect(inside({ centre: [3, 0, 0] }, [0, 0, 0])).toBe(0);
  });
});
