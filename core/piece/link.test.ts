import { describe, expect, it } from 'vitest';
import type { StoredValue } from '../declare/params';
import { evaluateNumber } from '../time/value';
import { evaluateColour } from '../time/colours/index';
import { addressKey, setValue, type Address } from './addresses';
import { copyRibbon } from './copy';
import { circleThrough, describeCircle, linkedValue, linkPiece } from './link';
import { newPiece, newRibbon, newStep, type Piece } from './piece';
import { readPiece, writePiece } from './read';

const twist = (ribbon: string): Address => ({
  owner: { type: 'step', ribbon, item: `${ribbon}-twist` },
  param: 'angle',
});
const shift = (ribbon: string, axis: 0 | 1 | 2): Address => ({
  owner: { type: 'step', ribbon, item: `${ribbon}-place` },
  param: 'shift',
  axis,
});
const colour = (ribbon: string): Address => ({
  owner: { type: 'part', ribbon, item: ribbons.find((r) => r.id === ribbon)!.finishes[0].parts[0].id },
  param: 'colour',
});
const wave = { motion: 'wave', shape: 'sine', width: 50, low: 0, high: 10, turns: 1, phase: 0, rest: 0 };
const follow = (of: Address, over: object = {}) => ({
  motion: 'follow',
  of: addressKey(of),
  scale: 1,
  offset: 0,
  delay: 0,
  springy: false,
  swings: 3,
  damping: 30,
  otherwise: 7,
  ...over,
});
const ribbons = ['a', 'b', 'c'].map((id, i) => ({
  ...newRibbon('torus', i, id.toUpperCase()),
  id,
  steps: [
    newStep('torus', {}, `${id}-torus`),
    newStep('twist', {}, `${id}-twist`),
    newStep('place', {}, `${id}-place`),
  ],
}));
const piece: Piece = { ...newPiece('Ties'), ribbons };
const put = (p: Piece, ...pairs: [Address, StoredValue][]) =>
  pairs.reduce((out, [address, value]) => setValue(out, address, value), p);
const value = (p: Piece, address: Address, frame = 25) =>
  evaluateNumber(linkedValue(p, address) as never, { frame, frames: 100 });

describe('following', () => {
  it('another value: scaled, offset, later, through several followers, across ribbons and axes of vectors', () => {
    const p = put(
      piece,
      [twist('a'), wave],
      [shift('b', 1), follow(twist('a'), { scale: 0.5, offset: 1 })],
      [twist('c'), follow(shift('b', 1), { delay: 25 })],
    );
    expect(value(p, twist('a'))).toBeCloseTo(10, 12);
    expect(value(p, shift('b', 1))).toBeCloseTo(6, 12);
    expect(value(p, twist('c'), 50)).toBeCloseTo(6, 12);
    expect(value(put(piece, [twist('a'), 33], [twist('b'), follow(twist('a'))]), twist('b'))).toBe(33);
  });
  it('a colour', () => {
    const p = put(
      piece,
      [colour('a'), { motion: 'cycle', colour: '#d9483b', turns: 1, space: 'oklch' }],
      [colour('b'), { motion: 'follow', of: addressKey(colour('a')), delay: 0, otherwise: '#000000' }],
    );
    const at = (r: string) => evaluateColour(linkedValue(p, colour(r)) as never, { frame: 40, frames: 100 });
    expect(at('b')).toBe(at('a'));
  });
  it('what is gone, or a colour where a number is wanted, leaves the follower at its other value', () => {
    const gone = { ...twist('a'), param: 'nothing' };
    expect(value(put(piece, [twist('b'), follow(gone)]), twist('b'))).toBe(7);
    expect(value(put(piece, [twist('b'), follow(colour('a'))]), twist('b'))).toBe(7);
  });
  it('a circle is named, and stands still instead of running for ever', () => {
    const p = put(
      piece,
      [twist('a'), follow(twist('b'))],
      [twist('b'), follow(twist('c'))],
      [twist('c'), follow(twist('a'))],
    );
    const circle = circleThrough(p, addressKey(twist('a')))!;
    expect(describeCircle(circle)).toBe('A, Twist angle → B, Twist angle → C, Twist angle → A, Twist angle');
    expect(value(p, twist('b'))).toBe(7);
    expect(circleThrough(put(piece, [twist('a'), follow(twist('b'))]), addressKey(twist('a')))).toBeNull();
    expect(circleThrough(put(piece, [twist('a'), follow(twist('a'))]), addressKey(twist('a')))).toHaveLength(1);
  });
  it('in a layer, too', () => {
    const p = put(
      piece,
      [twist('a'), wave],
      [
        twist('b'),
        { ...wave, low: 0, high: 0, layers: [{ how: 'add', on: true, motion: follow(twist('a'), { scale: 2 }) }] },
      ],
    );
    expect(value(p, twist('b'))).toBeCloseTo(20, 12);
  });
});

describe('a copied ribbon', () => {
  it('follows itself where the original did, and others where it followed those', () => {
    const p = put(
      piece,
      [twist('a'), wave],
      [shift('a', 0), follow(twist('a'))],
      [shift('a', 1), follow(twist('b'), { scale: 2 })],
    );
    const copy = copyRibbon(p.ribbons[0], 'A copy');
    const [, twisted, placed] = copy.steps;
    expect(new Set([copy.id, ...copy.steps.map((s) => s.id), 'a', 'a-torus', 'a-twist', 'a-place']).size).toBe(8);
    expect((placed.values.shift as unknown as { of: string }[]).slice(0, 2).map((m) => m.of)).toEqual([
      `${copy.id}/${twisted.id}/angle`,
      'b/b-twist/angle',
    ]);
  });
});

describe('linking', () => {
  it('gives back the very same piece where nothing follows, and the same ribbons where theirs do not', () => {
    expect(linkPiece(piece)).toBe(piece);
    const p = put(piece, [twist('b'), follow(twist('a'))]);
    const linked = linkPiece(p);
    expect(linked.ribbons[0]).toBe(p.ribbons[0]);
    expect(linked.ribbons[1]).not.toBe(p.ribbons[1]);
    expect(linkPiece(p)).toBe(linked);
    expect(linkPiece(linked)).toBe(linked);
  });
  it('is not written to files', () => {
    const p = put(piece, [twist('a'), wave], [twist('b'), follow(twist('a'))]);
    linkPiece(p);
    expect(writePiece(p)).not.toContain('source');
    const read = readPiece(writePiece(p));
    expect(read.ok && read.piece).toEqual(p);
  });
  it('tells formulas where they stand', () => {
    const text = { motion: 'formula', text: '10*order + count', otherwise: 0 };
    const p = put(piece, [twist('a'), text], [twist('c'), text]);
    expect([value(p, twist('a')), value(p, twist('c'))]).toEqual([3, 23]);
    const seeds = put(piece, [twist('a'), { ...text, text: 'seed' }], [twist('b'), { ...text, text: 'seed' }]);
    expect(value(seeds, twist('a'))).not.toBe(value(seeds, twist('b')));
  });
});
