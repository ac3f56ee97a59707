import Color from 'colorjs.io';
import { describe, expect, it } from 'vitest';
import { channelOf } from '../finish/part';
import { finishParts } from '../finish/parts/index';
import { surfaceOf } from '../finish/finish';
import { displayToLight } from '../maths/srgb';
import { noiseField } from '../noise/noise';
import { randomSource } from '../maths/random';
import { copyRibbon } from '../piece/copy';
import { setValue, valueAt, valuesOf } from '../piece/addresses';
import { lengthenLoop } from '../piece/lengthen';
import { pairRibbon, setPairedValue } from '../piece/pair';
import { newFinish, newItem, newPiece, newRibbon, type Piece, type Values } from '../piece/piece';
import { readPiece } from '../piece/read';
import { selfMovingOf } from '../piece/self-moving';
import { ownersOf } from '../piece/walk';
import type { Hit } from './kind';
import { patterns } from './kinds/index';
import { freshLayer, layerParams } from './layer';
import { pcg, plainMaths } from './maths';
import { heightAt, layered, patternedAt, structureOf } from './pattern-at';
import type { PatternDoc } from '../piece/piece';
import { patternAt } from '../finish/pattern-of';
import { rampOf, readRamp } from './ramp';

const colour = channelOf(finishParts.get('base'), 'colour')!;
const rough = channelOf(finishParts.get('base'), 'roughness')!;

function layer(kind: string, values: Values = {}, on = rough, of = 'roughness'): PatternDoc {
  const params = layerParams(patterns.get(kind), on.target);
  return {
    ...newItem({ kind, params }, { ...(freshLayer(kind, on.target, on.target.default as never) as Values), ...values }),
    of,
  };
}

function withLayers(piece: Piece, ...layers: PatternDoc[]): Piece {
  const ribbon = newRibbon('sphere', 0);
  const [main] = ribbon.finishes;
  const finishes = [{ ...main, parts: main.parts.map((p) => (p.kind === 'base' ? { ...p, patterns: layers } : p)) }];
  return { ...piece, ribbons: [...piece.ribbons, { ...ribbon, finishes }] };
}

function randomHit(random: () => number): Hit<number> {
  const three = (): [number, number, number] => [4 * random() - 2, 4 * random() - 2, 4 * random() - 2];
  return {
    form: three(),
    room: three(),
    uv: [random(), random()],
    facing: random(),
    depth: 10 * random(),
    occlusion: random(),
    copy: { order: random(), id: Math.floor(1000 * random()), at: three() },
  };
}

describe('patterns', () => {
  it('are within 0…1, and at the end of the loop what they were at its beginning, at every place', () => {
    const random = randomSource(3);
    for (const { kind, params } of patterns.all)
      for (let k = 0; k < 12; k++) {
        const more = 'push' in params ? { push: 60, pushRate: 1.3 } : {};
        const doc = layer(kind, { ...(k % 2 ? {} : { rampEnds: 'round' }), ...more } as Values);
        const hit = randomHit(random);
        const at = (frame: number) => heightAt(patternAt(doc, rough.target, 1, { frame, frames: 50 }), hit);
        expect(at(50), kind).toBe(at(0));
        expect(at(17)).toBeGreaterThanOrEqual(0);
        expect(at(17)).toBeLessThanOrEqual(1);
      }
  });

  it('noise is the noise of core', () => {
    const doc = layer('noise', { noise: 'cellular', scale: 0.7, octaves: 3, seed: 4, rate: 0.8 });
    const p = patternAt(doc, rough.target, 1, { frame: 7, frames: 50 });
    const field = noiseField(p.noise!, p.clock);
    const random = randomSource(5);
    for (let i = 0; i < 40; i++) {
      const hit = randomHit(random);
      const expected = Math.max(0, Math.min(1, 0.5 + 0.5 * field(...hit.form)));
      expect(heightAt(p, hit)).toBeCloseTo(expected, 12);
    }
  });

  it('rim, depth, distance and height are what they say, by closed formulas', () => {
    const hit = { ...randomHit(randomSource(1)), facing: 0.25, depth: 5, form: [3, 4, 0] as const };
    const at = (kind: string, values: Values) =>
      heightAt(patternAt(layer(kind, values), rough.target, 1, { frame: 0, frames: 1 }), hit);
    expect(at('facing', { power: 2 })).toBeCloseTo(0.75 ** 2, 12);
    expect(at('depth', { near: 2, far: 8 })).toBeCloseTo(0.5, 12);
    expect(at('distance', { from: 0, to: 10 })).toBeCloseTo(0.5, 12);
    expect(at('along', { axis: 'x', from: 0, to: 4 })).toBeCloseTo(0.75, 12);
    expect(at('around', { axis: 'z' })).toBeCloseTo(Math.atan2(4, 3) / (2 * Math.PI), 12);
    // Both ends in one place are a step there and no division by nothing.
    expect(at('along', { axis: 'x', from: 1, to: 1 })).toBe(1);
  });

  it('bands cover the share of space that they say', () => {
    const doc = layer('bands', { width: 0.4, share: 30, soft: 0 });
    const p = patternAt(doc, rough.target, 1, { frame: 0, frames: 1 });
    const hit = randomHit(randomSource(2));
    let covered = 0;
    for (let i = 0; i < 4000; i++) covered += heightAt(p, { ...hit, form: [0, i * 0.001, 0] });
    expect(covered / 4000).toBeCloseTo(0.3, 2);
  });

  it('chance is spread evenly: chi-square of 1000 copies over 10 bins is below 27.9, which it exceeds once in 1000', () => {
    for (const seed of [0, 1, 77]) {
      const bins = new Array(10).fill(0);
      for (let id = 0; id < 1000; id++) bins[Math.floor(10 * plainMaths.chance(id, seed))]++;
      expect(bins.reduce((s, n) => s + (n - 100) ** 2 / 100, 0)).toBeLessThan(27.9);
    }
    // PCG of 32 bits is a permutation: no two of many are the same.
    expect(new Set(Array.from({ length: 20_000 }, (_, i) => pcg(i))).size).toBe(20_000);
  });

  it('layers lie over, are added, multiply, and a mask says where the next shows', () => {
    const l = (how: 'over' | 'add' | 'multiply' | 'mask', amount: number, height: number) => ({
      how,
      amount,
      height,
      to: (h: number) => 2 + 4 * h,
    });
    expect(layered(plainMaths, 3, [l('over', 0.5, 0.5)])).toBeCloseTo(3 + (4 - 3) * 0.5, 12);
    expect(layered(plainMaths, 3, [l('add', 0.5, 0.5)])).toBeCloseTo(3 + 4 * 0.5, 12);
    expect(layered(plainMaths, 3, [l('multiply', 1, 0.5)])).toBeCloseTo(12, 12);
    expect(layered(plainMaths, 3, [l('mask', 1, 0.25), l('over', 1, 0.5)])).toBeCloseTo(3 + (4 - 3) * 0.25, 12);
    // A mask counts for one layer only.
    expect(layered(plainMaths, 3, [l('mask', 1, 0), l('over', 1, 0.5), l('over', 1, 0)])).toBe(2);
    expect(layered(plainMaths, 3, [l('mask', 1, 0.2)])).toBe(3);
  });
});

describe('ramps of colours', () => {
  const light = (hex: string) => [1, 3, 5].map((k) => displayToLight(parseInt(hex.slice(k, k + 2), 16) / 255));
  const stops = [
    { at: 0, colour: '#8a6a5f' },
    { at: 1, colour: '#6f8f76' },
  ];
  const read = (ramp: Float32Array, x: number, round = false) => [0, 1, 2].map((k) => readRamp(ramp, x, k, round));

  it('show each colour at its place', () => {
    const ramp = rampOf(stops, 'oklch', false);
    for (const [x, hex] of [
      [0, '#8a6a5f'],
      [1, '#6f8f76'],
    ] as const)
      read(ramp, x).forEach((c, k) => expect(c).toBeCloseTo(light(hex)[k], 5));
  });

  it('mix hues the shorter or the longer way, as npm colorjs.io does', () => {
    for (const [mix, hue] of [
      ['oklch', 'shorter'],
      ['far', 'longer'],
    ] as const) {
      const reference = new Color(stops[0].colour).range(new Color(stops[1].colour), { space: 'oklch', hue } as never);
      let compared = 0;
      for (const x of [0.2, 0.4, 0.6, 0.8]) {
        const c = (reference(x) as unknown as Color).to('srgb-linear');
        if (!c.inGamut('srgb')) continue;
        compared++;
        const own = read(rampOf(stops, mix, false), x);
        c.coords.forEach((v, k) => expect(own[k], `${mix} ${x}`).toBeCloseTo(v ?? 0, 1.9));
      }
      expect(compared).toBeGreaterThan(2);
    }
  });

  it('come round without a step', () => {
    const ramp = rampOf(
      [
        { at: 0, colour: '#ff0000' },
        { at: 0.5, colour: '#0000ff' },
      ],
      'rgb',
      true,
    );
    const [before, after] = [read(ramp, 0.99999, true), read(ramp, 0, true)];
    before.forEach((c, k) => expect(c).toBeCloseTo(after[k], 3));
  });
});

describe('patterns in a piece', () => {
  it('are read, written, addressed and lie on the surface', () => {
    const piece = withLayers(
      newPiece(),
      layer('bands', { rampLow: 10, rampHigh: 90 }),
      layer('noise', {}, colour, 'colour'),
    );
    const again = readPiece(JSON.stringify(piece));
    if (!again.ok) throw new Error(again.message);
    const surface = surfaceOf(again.piece.ribbons[0].finishes[0], { frame: 3, frames: 100 });
    expect(surface.patterns.map((p) => p.channel)).toEqual(['baseColor', 'roughness']);
    const to = surface.patterns[1].layers[0].to;
    expect(to).toEqual({ type: 'number', low: 0.1, high: 0.9 });
    const owner = ownersOf(piece).find((o) => o.owner.type === 'pattern')!.owner;
    const address = { owner, param: 'rampHigh' };
    expect(valueAt(setValue(piece, address, 55), address)).toBe(55);
    expect(valuesOf(piece).filter((v) => v.address.owner.type === 'pattern').length).toBeGreaterThan(20);
  });

  it('are refused where they lie on nothing, or hold what cannot be, by a sentence that names it', () => {
    const bad = (change: Partial<PatternDoc>) => {
      const read = readPiece(JSON.stringify(withLayers(newPiece(), { ...layer('bands'), ...change } as PatternDoc)));
      return read.ok ? '' : read.message;
    };
    expect(bad({ of: 'weight' })).toContain('“weight”');
    expect(bad({ of: 'weight' })).toContain('colour, roughness');
    expect(bad({ kind: 'plaid' })).toContain('There is no pattern “plaid”');
    expect(bad({ values: { ...layer('bands').values, rampLow: 130 } })).toContain('130');
    const many = readPiece(JSON.stringify(withLayers(newPiece(), ...Array.from({ length: 17 }, () => layer('even')))));
    expect(many.ok ? '' : many.message).toContain('at most 16');
  });

  it('go along with copies and pairs, and with a longer loop', () => {
    const piece = withLayers(newPiece(), layer('noise', { rate: 2 }));
    const [ribbon] = piece.ribbons;
    const copy = copyRibbon(ribbon, 'Copy');
    expect(copy.finishes[0].parts[0].patterns![0].id).not.toBe(ribbon.finishes[0].parts[0].patterns![0].id);
    const paired = { ...piece, ribbons: [ribbon, pairRibbon(ribbon, 'Pair')] };
    const owner = ownersOf(paired).find((o) => o.owner.type === 'pattern')!.owner;
    const set = setPairedValue(paired, { owner, param: 'scale' }, 2.5);
    expect(set.ribbons.map((r) => r.finishes[0].parts[0].patterns![0].values.scale)).toEqual([2.5, 2.5]);
    const longer = lengthenLoop(piece, 2);
    expect(longer.ribbons[0].finishes[0].parts[0].patterns![0].values.rate).toBe(4);
  });

  it('that change by themselves are told among what moves', () => {
    const moving = selfMovingOf(withLayers(newPiece(), layer('noise', { rate: 2 }), layer('bands')));
    expect(moving.map((m) => [m.title, m.amount])).toEqual([['Roughness noise rate', 2]]);
  });

  it('are compiled by what is chosen and never by a number', () => {
    const key = (values: Values) =>
      structureOf(patternAt(layer('noise', values), rough.target, 1, { frame: 0, frames: 9 }));
    expect(key({ scale: 2, octaves: 5, seed: 9, rate: 3, rampShift: 0.2, layerAmount: 0 })).toBe(key({}));
    expect(key({ noise: 'wood' })).not.toBe(key({}));
    expect(key({ layerHow: 'mask' })).not.toBe(key({}));
  });

  it('leave a channel as it is where nothing is laid on it', () => {
    expect(patternedAt([0.3], [], randomHit(randomSource(9)))).toEqual([0.3]);
    expect(surfaceOf(newFinish(), { frame: 0, frames: 10 }).patterns).toEqual([]);
  });
});
