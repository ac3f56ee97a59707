import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { numbersOf } from '../piece/addresses';
import { proveSeam } from '../seam/proof';
import { checkSeam } from '../seam/check';
import { differences } from './differences';
import { mixed } from './mix';
import { alongAxes, reachOf, variation } from './variation';
import { variablesOf } from './variables';

const folder = path.join(import.meta.dirname, '../../demo');
const demos = readdirSync(folder).map((name) => {
  const read = readPiece(readFileSync(path.join(folder, name), 'utf8'));
  if (!read.ok) throw new Error(read.message);
  return [read.piece.name, read.piece] as const;
});
const order = { seed: 5, reach: 1, count: 12 };
const gapKeys = (p: Piece) =>
  proveSeam(p)
    .findings.filter((f) => f.kind === 'gap')
    .map((f) => f.key);
const wave = { motion: 'wave', shape: 'sine', low: -30, high: 30, turns: 1, phase: 0 } as const;
const ring: Piece = {
  ...newPiece('Ring'),
  ribbons: [
    {
      ...newRibbon('torus', 0, 'Ring'),
      steps: [
        newStep('torus', { ringSegments: 24, pipeSegments: 12 }, 'a'),
        newStep('displace', { rate: 1 }, 'b'),
        newStep('twist', { angle: wave }, 'c'),
        newStep('spin', {}, 'd'),
      ],
    },
  ],
};

describe('a variation', () => {
  it.each(demos)('of %s is a sound document with no gap that was not there', (_, piece) => {
    const variables = variablesOf(piece);
    expect(variables.length).toBeGreaterThan(5);
    expect(new Set(variables.map((v) => v.key)).size).toBe(variables.length);
    const known = gapKeys(piece);
    for (const index of [0, 5, 11]) {
      const varied = variation(piece, variables, order, index);
      const read = readPiece(writePiece(varied));
      expect(read.ok ? '' : read.message).toBe('');
      expect(gapKeys(varied).filter((k) => !known.includes(k))).toEqual([]);
      expect(differences(piece, varied).length).toBeGreaterThan(2);
    }
  });
  it('of any piece is one, too', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const piece = seed % 2 ? new Dice(seed).piece() : new Dice(seed).copies(12, false);
      const varied = variation(piece, variablesOf(piece), { ...order, seed }, seed);
      const read = readPiece(writePiece(varied));
      expect(read.ok ? '' : read.message).toBe('');
      expect(gapKeys(varied).length).toBeLessThanOrEqual(gapKeys(piece).length);
    }
  });
  it('closes by its shapes, and not by its motions alone', async () => {
    for (const index of [3, 7, 11]) {
      const varied = variation(
        ring,
        variablesOf(ring).filter((v) => v.group !== 'form' || v.title !== 'Kind of form'),
        order,
        index,
      );
      expect((await checkSeam(varied, 'draft')).closed).toBe(true);
    }
  });
  it('is the same for the same order, and goes the farther the later it comes', () => {
    const variables = variablesOf(ring).filter((v) => v.title === 'Twist angle: swing');
    const swing = (i: number, seed = 5) => {
      const { angle } = variation(ring, variables, { ...order, seed }, i).ribbons[0].steps[2].values;
      const { low, high } = angle as typeof wave;
      return high - low;
    };
    expect(swing(4)).toBe(swing(4));
    expect(swing(4, 6)).not.toBe(swing(4));
    // Over many throws the first stay nearer to the sixty degrees that there are.
    const off = (i: number) =>
      Array.from({ length: 40 }, (_, seed) => Math.abs(Math.log2(swing(i, seed) / 60))).reduce((a, b) => a + b) / 40;
    expect(off(0)).toBeLessThan(0.4 * off(11));
    expect([reachOf(order, 0), reachOf(order, 11), reachOf(order, 40)]).toEqual([0.25, 1, 1]);
  });
  it('varies what was asked for and nothing else', () => {
    const twist = variablesOf(ring).filter((v) => v.item === 'c');
    const varied = variation(ring, twist, order, 9);
    expect(differences(ring, varied).every((d) => d.item === 'c')).toBe(true);
    expect(variablesOf(ring).some((v) => v.title === 'Torus ring faces')).toBe(false);
    expect(
      variablesOf(ring)
        .filter((v) => v.group === 'chance')
        .map((v) => v.title),
    ).toContain('Displace seed');
  });
  it('leaves whole turns whole', () => {
    for (let i = 0; i < 24; i++) {
      const { turns } = variation(ring, variablesOf(ring), { ...order, count: 24 }, i).ribbons[0].steps[3].values;
      expect(Number.isInteger(turns as number)).toBe(true);
    }
  });
});

describe('along axes', () => {
  it('one value goes across and the other down, and nothing else does', () => {
    const by = (title: string) => variablesOf(ring).find((v) => v.title === title)!;
    const axes = [by('Torus pipe radius'), by('Torus ring radius')] as const;
    const at = (x: number, y: number) => alongAxes(ring, axes, [x, y], 1).ribbons[0].steps[0].values;
    expect(at(0.5, 0.5)).toEqual(ring.ribbons[0].steps[0].values);
    const [left, right, low] = [at(0, 0.5), at(1, 0.5), at(0.5, 0)] as Record<string, number>[];
    expect(left.pipeRadius).toBeLessThan(0.2);
    expect(right.pipeRadius).toBeGreaterThan(0.8);
    expect(left.ringRadius).toBe(1);
    expect(low.ringRadius).toBeLessThan(0.5);
  });
});

describe('a mixture', () => {
  it('lies between the two of which it is', () => {
    const [a, b] = [2, 9].map((i) => variation(ring, variablesOf(ring), order, i));
    const [from, to] = [a, b].map((p) => new Map(numbersOf(p).map((n) => [JSON.stringify(n.address), n])));
    for (let i = 0; i < 6; i++) {
      const m = mixed(a, b, 3, i);
      expect(readPiece(writePiece(m)).ok).toBe(true);
      for (const n of numbersOf(m)) {
        const [x, y] = [from, to].map((list) => list.get(JSON.stringify(n.address))?.value);
        if (typeof x !== 'number' || typeof y !== 'number' || typeof n.value !== 'number') continue;
        if (n.param.type === 'number' && n.param.seeds) expect([x, y]).toContain(n.value);
        else {
          expect(n.value).toBeGreaterThanOrEqual(Math.min(x, y) - n.param.step);
          expect(n.value).toBeLessThanOrEqual(Math.max(x, y) + n.param.step);
        }
      }
    }
  });
});

describe('differences', () => {
  it('are told as rows have them', () => {
    const [r] = ring.ribbons;
    const steps = [
      { ...r.steps[0], values: { ...r.steps[0].values, pipeRadius: 0.25 } },
      { ...r.steps[2], values: { ...r.steps[2].values, angle: { ...wave, high: 90 } } },
      { ...r.steps[1], on: false },
    ];
    const other = { ...ring, loop: { frames: 50, fps: 25 }, ribbons: [{ ...r, steps }] };
    expect(differences(ring, other).map((d) => `${d.place}: ${d.what} ${d.from} → ${d.to}`)).toEqual([
      'Piece: Loop 100 frames at 25 fps → 50 frames at 25 fps',
      'Ring: Steps  → in another order',
      'Ring: Torus pipe radius 0.4 m → 0.25 m',
      'Ring: Twist angle wave -30…30° → wave -30…90°',
      'Ring: Displace on → off',
      'Ring: Spin  → removed',
    ]);
    expect(differences(ring, ring)).toEqual([]);
  });
});
