import { describe, expect, it } from 'vitest';
import { LIMITS } from '../declare/limits';
import { Dice } from '../fixtures/dice';
import { rounds } from '../fixtures/effort';
import { finishParts } from '../finish/parts/index';
import { sceneList, sceneListNames } from '../scene/index';
import { stepKinds } from '../steps/index';
import { freeName, freshRibbon, freshStep, withCopyOf, withItem, withPart } from './adding';
import { newFinish, newItem, newPiece, type Item, type Piece } from './piece';
import { readPiece, writePiece } from './read';

const dice = new Dice(11);

describe('adding', () => {
  it('gives ribbons names that are free, however long they are', () => {
    let piece: Piece = newPiece();
    const long = 'x'.repeat(LIMITS.nameOfRibbon);
    for (let i = 0; i < 12; i++)
      piece = { ...piece, ribbons: [...piece.ribbons, { ...freshRibbon(piece, 'box'), name: freeName(long, piece) }] };
    const names = piece.ribbons.map((r) => r.name);
    expect(new Set(names).size).toBe(12);
    expect(Math.max(...names.map((n) => n.length))).toBeLessThanOrEqual(LIMITS.nameOfRibbon);
  });
  it('of any step makes one that a document may hold', () => {
    for (const { kind, group, params, fresh } of stepKinds) {
      const step = freshStep(kind);
      const ribbon = freshRibbon(newPiece(), group === 'form' ? kind : 'torus');
      const steps = group === 'form' ? ribbon.steps : [...ribbon.steps, step];
      const read = readPiece(writePiece({ ...newPiece(), ribbons: [{ ...ribbon, steps }] }));
      expect(read.ok ? '' : read.message).toBe('');
      for (const name of Object.keys(fresh ?? {})) expect(params).toHaveProperty(name);
    }
  });
  it('of parts keeps their order and has each once', () => {
    for (let i = 0; i < rounds(50, 500); i++) {
      let finish = newFinish();
      for (let n = 0; n < 8; n++) finish = withPart(finish, dice.of(finishParts.all).kind);
      const order = finishParts.all.map((p) => p.kind);
      const ranks = finish.parts.map((p) => order.indexOf(p.kind));
      expect(ranks).toEqual([...new Set(ranks)].sort((a, b) => a - b));
    }
  });
  it('to the scene never leaves more than there may be, nor two of what excludes each other', () => {
    for (let i = 0; i < rounds(50, 500); i++)
      for (const name of sceneListNames) {
        const list = sceneList(name);
        let items: readonly Item[] = newPiece().scene[name];
        for (let n = 0; n < list.most + 2; n++)
          items =
            items.length > 0 && dice.chance(0.3)
              ? withCopyOf(items, dice.of(items).id, list)
              : withItem(items, newItem(dice.of(list.kinds.all)), list);
        expect(items.length).toBeLessThanOrEqual(list.most);
        expect(new Set(items.map((x) => x.id)).size).toBe(items.length);
        if (list.oneOn) expect(items.filter((x) => x.on)).toHaveLength(1);
        const alone = items.filter((x) => x.on).flatMap((x) => list.kinds.get(x.kind).one ?? []);
        expect(new Set(alone).size, name).toBe(alone.length);
      }
  });
});
