import { describe, expect, it } from 'vitest';
import { newPiece, newRibbon, newStep, type Piece } from './piece';
import { joinValue, pairingOf, pairRibbon, partValue, setPairedValue, twinsOf } from './pair';
import { readPiece, writePiece } from './read';
import { linkPiece } from './link';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';

const first = { ...newRibbon('geodesic', 0), steps: [newStep('geodesic'), newStep('displace', { height: 0.2 })] };
const second = pairRibbon(first, 'Second');
const piece: Piece = { ...newPiece(), ribbons: [first, second] };
const address = (i: number, param: string) => ({
  owner: { type: 'step' as const, ribbon: piece.ribbons[i].id, item: piece.ribbons[i].steps[1].id },
  param,
});
const value = (p: Piece, i: number, param: string) => p.ribbons[i].steps[1].values[param];

describe('a pair', () => {
  it('changes together in what is equal: numbers, choices and switches', () => {
    for (const [param, x] of [
      ['height', 0.5],
      ['noise', 'cellular'],
      ['invert', true],
      ['stretch', [1, 2, 3]],
    ] as const) {
      const out = setPairedValue(piece, address(0, param), x as never);
      expect(value(out, 0, param)).toEqual(x);
      expect(value(out, 1, param)).toEqual(x);
    }
  });
  it('goes both ways: the second changes the first as the first the second', () => {
    const changed = setPairedValue(piece, address(1, 'invert'), true);
    expect([value(changed, 0, 'invert'), value(changed, 1, 'invert')]).toEqual([true, true]);
  });
  it('a value that was parted goes its own way on both, until it is joined again', () => {
    const apart = setPairedValue(partValue(piece, address(1, 'invert')), address(1, 'invert'), true);
    expect([value(apart, 0, 'invert'), value(apart, 1, 'invert')]).toEqual([false, true]);
    const later = setPairedValue(setPairedValue(apart, address(0, 'height'), 0.9), address(1, 'seed'), 7);
    expect([value(later, 1, 'height'), value(later, 0, 'seed'), value(later, 1, 'invert')]).toEqual([0.9, 7, true]);
    // Parted values stay apart even where they happen to be equal.
    const equal = setPairedValue(later, address(0, 'invert'), true);
    expect(value(setPairedValue(equal, address(0, 'invert'), false), 1, 'invert')).toBe(true);
    expect([
      pairingOf(later, address(0, 'height')),
      pairingOf(later, address(0, 'invert')),
      pairingOf({ ...piece, ribbons: [first] }, address(0, 'height')),
    ]).toEqual(['linked', 'apart', 'none']);
    const joined = joinValue(later, address(0, 'invert'));
    expect([value(joined, 0, 'invert'), value(joined, 1, 'invert')]).toEqual([false, false]);
    expect(pairingOf(joined, address(1, 'invert'))).toBe('linked');
    expect(readPiece(writePiece(later)).ok).toBe(true);
  });
  it('has finishes that go along but for the colour, and a pair of a pair goes along in turn', () => {
    const third = pairRibbon(second, 'Third');
    const three = { ...piece, ribbons: [...piece.ribbons, third] };
    expect(twinsOf(three, address(0, 'height'))).toHaveLength(2);
    const finish = (i: number, param: string) => ({
      owner: { type: 'part' as const, ribbon: three.ribbons[i].id, item: three.ribbons[i].finishes[0].parts[0].id },
      param,
    });
    expect(twinsOf(three, finish(0, 'roughness'))).toHaveLength(2);
    expect(twinsOf(three, finish(0, 'colour'))).toHaveLength(0);
  });
  it('is kept in the file', () => {
    const read = readPiece(writePiece(piece));
    expect(read.ok && read.piece.ribbons[1]).toMatchObject({
      twin: first.id,
      steps: [{ twin: first.steps[0].id }, { twin: first.steps[1].id }],
    });
  });
});

describe('ribbons that work with other ribbons', () => {
  const path = newRibbon('curve', 1);
  const bar = {
    ...newRibbon('box', 0),
    steps: [newStep('box', { size: [0.2, 2, 0.2], segments: 12 }), newStep('along', { other: path.id })],
  };
  const evaluated = (p: Piece, i: number) =>
    evaluateRibbon(linkPiece(p).ribbons[i], p.loop, 0, 'draft', new MeshCache());
  it('are evaluated with them, switched off or not', () => {
    const p = { ...newPiece(), ribbons: [bar, { ...path, on: false }] };
    expect(evaluated(p, 0).problems).toEqual([]);
    const other = { ...p, ribbons: [bar, { ...path, steps: [newStep('curve', { curve: 'ring' })] }] };
    expect(evaluated(other, 0).key).not.toBe(evaluated(p, 0).key);
  });
  it('say so when the other is gone, or would be made of themselves', () => {
    expect(evaluated({ ...newPiece(), ribbons: [bar] }, 0).problems[0].message).toContain(
      'needs a ribbon that is a curve',
    );
    const a = { ...bar, id: 'a', steps: [bar.steps[0], newStep('along', { other: 'b' })] };
    const b = { ...bar, id: 'b', steps: [bar.steps[0], newStep('along', { other: 'a' })] };
    const circle = { ...newPiece(), ribbons: [a, b] };
    expect(evaluated(circle, 0).problems).toHaveLength(1);
    expect(evaluated(circle, 0).mesh.positions.length).toBeGreaterThan(0);
  });
  it('pass over what has nothing to work on, and say what it needs', () => {
    const words = (...steps: ReturnType<typeof newStep>[]) =>
      evaluated({ ...newPiece(), ribbons: [{ ...bar, steps }] }, 0).problems[0].message;
    expect(words(newStep('curve'), newStep('bevel'))).toContain('only curves');
    expect(words(newStep('box'), newStep('extrude'))).toContain('there are none here');
  });
});
