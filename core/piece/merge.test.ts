import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { dressed } from '../fixtures/dress';
import { addressKey, numbersOf, setValue } from './addresses';
import { mergePieces, type Merged } from './merge';
import { newItem, newPiece, newRibbon, newStep, type Piece } from './piece';
import { readPieceValue } from './read';
import { sceneLists } from '../scene/index';
import { rounds } from '../fixtures/effort';

const plain = (piece: Piece) => JSON.parse(JSON.stringify(piece)) as Piece;
const merged = (found: Merged) => {
  if (!found.ok) throw new Error(found.message);
  return found;
};
const ring = newRibbon('torus', 0, 'Ring');
const twist = newStep('twist');
const base = plain({ ...newPiece('Vane'), ribbons: [{ ...ring, steps: [...ring.steps, twist] }] });
const at = (param: string, item = twist.id) => ({ owner: { type: 'step' as const, ribbon: ring.id, item }, param });

describe('two versions of one piece', () => {
  it('values of one and values of the other, over random pieces', () => {
    let tried = 0;
    for (let seed = 1; seed <= rounds(20, 60); seed++) {
      const dice = new Dice(seed);
      const drawn = readPieceValue(plain(dressed(dice.piece(), dice)));
      // Layers at random may go beyond what a value may be.
      if (!drawn.ok) continue;
      tried++;
      const piece = plain(drawn.piece);
      const places = numbersOf(piece);
      let [mine, theirs, both] = [piece, piece, piece];
      const used = new Set<string>();
      for (let k = 0; k < 12; k++) {
        const { address, param } = dice.of(places);
        if (used.has(addressKey(address))) continue;
        used.add(addressKey(address));
        const [low, high] = param.soft;
        const value = param.integer ? dice.whole(low, high) : dice.between(low, high);
        both = setValue(both, address, value);
        if (dice.chance(0.5)) mine = setValue(mine, address, value);
        else theirs = setValue(theirs, address, value);
      }
      const found = merged(mergePieces(piece, plain(mine), plain(theirs)));
      expect(found.conflicts).toEqual([]);
      expect(plain(found.piece)).toEqual(plain(both));
      expect(plain(merged(mergePieces(piece, piece, theirs)).piece)).toEqual(plain(theirs));
      expect(plain(merged(mergePieces(piece, mine, piece)).piece)).toEqual(plain(mine));
      expect(plain(merged(mergePieces(piece, mine, mine)).piece)).toEqual(plain(mine));
    }
    expect(tried).toBeGreaterThan(rounds(9, 30));
  }, 600_000);
  it('the same value on both sides is a conflict, told with both; one side goes on as it is preferred', () => {
    const [mine, theirs] = [setValue(base, at('angle'), 30), setValue(base, at('angle'), 75)];
    const found = merged(mergePieces(base, mine, theirs));
    expect(found.conflicts).toEqual([{ place: 'Ring', what: 'Twist angle', mine: '30°', theirs: '75°' }]);
    expect(found.piece.ribbons[0].steps[1].values.angle).toBe(30);
    expect(merged(mergePieces(base, mine, theirs, 'theirs')).piece.ribbons[0].steps[1].values.angle).toBe(75);
  });
  it('axes of one vector are values of their own', () => {
    const place = newStep('place');
    const piece = plain({ ...base, ribbons: [{ ...base.ribbons[0], steps: [...base.ribbons[0].steps, place] }] });
    const param = numbersOf(piece).find((n) => n.address.owner.item === place.id && n.address.axis === 0)!.address
      .param;
    const mine = setValue(piece, { ...at(param, place.id), axis: 0 }, 0.25);
    const theirs = setValue(piece, { ...at(param, place.id), axis: 2 }, 0.75);
    const found = merged(mergePieces(piece, mine, theirs));
    expect(found.conflicts).toEqual([]);
    expect(found.piece.ribbons[0].steps[2].values[param]).toEqual([0.25, expect.anything(), 0.75]);
  });
  it('what is added, removed and put into another order on either side comes together', () => {
    const [smooth, taper] = [newStep('smooth'), newStep('taper')];
    const ribbon = base.ribbons[0];
    const mine = plain({ ...base, ribbons: [{ ...ribbon, steps: [ring.steps[0], smooth, twist] }] });
    const theirs = plain({
      ...base,
      name: 'Vane II',
      scene: { ...base.scene, lights: [...base.scene.lights, newItem(sceneLists.lights.kinds.all[1])] },
      ribbons: [{ ...ribbon, name: 'Loop', steps: [...ribbon.steps, taper] }, newRibbon('box', 1, 'Crate')],
    });
    const found = merged(mergePieces(base, mine, theirs));
    expect(found.conflicts).toEqual([]);
    expect(found.piece.name).toBe('Vane II');
    expect(found.piece.ribbons.map((r) => r.name)).toEqual(['Loop', 'Crate']);
    expect(found.piece.ribbons[0].steps.map((s) => s.kind)).toEqual(['torus', 'smooth', 'twist', 'taper']);
    expect(found.piece.scene.lights).toHaveLength(base.scene.lights.length + 1);
  });
  it('what one removed and the other changed stays, and is told', () => {
    const removed = plain({ ...base, ribbons: [{ ...base.ribbons[0], steps: [base.ribbons[0].steps[0]] }] });
    const changed = setValue(base, at('angle'), 30);
    for (const [mine, theirs] of [
      [removed, changed],
      [changed, removed],
    ]) {
      const found = merged(mergePieces(base, mine, theirs));
      expect(found.piece.ribbons[0].steps[1].values.angle).toBe(30);
      expect(found.conflicts).toMatchObject([{ place: 'Ring', what: 'Twist' }]);
    }
  });
  it('what cannot be saved is not offered', () => {
    const many = (name: string) =>
      plain({
        ...base,
        ribbons: [...base.ribbons, ...Array.from({ length: 40 }, (_, i) => newRibbon('box', i, `${name} ${i}`))],
      });
    const found = mergePieces(base, many('Mine'), many('Theirs'));
    expect(found).toMatchObject({ ok: false, message: expect.stringContaining('at most 64 ribbons') });
  });
});
