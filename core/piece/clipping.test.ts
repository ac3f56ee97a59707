import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { clipRibbons, pasteRibbons } from './clipping';
import { newPiece, newRibbon, newStep, type Piece } from './piece';
import { readPiece, writePiece } from './read';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { linkPiece } from './link';

const path = { ...newRibbon('curve', 0, 'Path'), id: 'path', on: false };
const follow = { motion: 'follow', of: 'lead/spin/angle', offset: 0, otherwise: 0 } as never;
const body = {
  ...newRibbon('box', 1, 'Body'),
  id: 'body',
  steps: [
    newStep('box', {}, 'b'),
    newStep('along', { other: 'path' }, 'al'),
    newStep('twist', { angle: follow }, 'tw'),
  ],
};
const lead = {
  ...newRibbon('torus', 2, 'Lead'),
  id: 'lead',
  steps: [newStep('torus', {}, 't'), newStep('spin', {}, 'spin')],
};
const apart = { ...newRibbon('cone', 3, 'Apart'), id: 'apart' };
const piece: Piece = { ...newPiece('Clipped'), ribbons: [path, body, lead, apart] };

describe('a clipping', () => {
  it('holds what was asked for, and what that names and follows', () => {
    const read = readPiece(clipRibbons(piece, ['body']));
    expect(read.ok && read.piece.ribbons.map((r) => r.name)).toEqual(['Path', 'Body', 'Lead']);
    const alone = readPiece(clipRibbons(piece, ['apart']));
    expect(alone.ok && alone.piece.ribbons.map((r) => r.name)).toEqual(['Apart']);
  });
  it('is pasted as copies that hang on each other, into another piece', () => {
    const other: Piece = { ...newPiece('Other'), ribbons: [{ ...newRibbon('box', 0, 'Body'), id: 'x' }] };
    const pasted = pasteRibbons(other, clipRibbons(piece, ['body']));
    if (!pasted.ok) throw new Error(pasted.message);
    const [, newPath, newBody, newLead] = pasted.piece.ribbons;
    expect(pasted.piece.ribbons.map((r) => r.name)).toEqual(['Body', 'Path', 'Body 2', 'Lead']);
    expect(pasted.ids).toEqual([newPath.id, newBody.id, newLead.id]);
    expect(newBody.steps[1].values.other).toBe(newPath.id);
    expect((newBody.steps[2].values.angle as { of?: string }).of).toBe(`${newLead.id}/${newLead.steps[1].id}/angle`);
    expect(readPiece(writePiece(pasted.piece)).ok).toBe(true);
  });
  it('of any piece, pasted into an empty one, makes the same shapes', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const any = seed % 2 ? new Dice(seed).piece() : new Dice(seed).copies(12, false);
      const pasted = pasteRibbons(
        { ...any, ribbons: [] },
        clipRibbons(
          any,
          any.ribbons.map((r) => r.id),
        ),
      );
      if (!pasted.ok) throw new Error(pasted.message);
      expect(readPiece(writePiece(pasted.piece)).ok).toBe(true);
      expect(pasted.piece.ribbons.map((r) => r.steps.map((s) => s.kind))).toEqual(
        any.ribbons.map((r) => r.steps.map((s) => s.kind)),
      );
      const shapes = [any, pasted.piece].map((p) =>
        linkPiece(p).ribbons.map((r) => [...evaluateRibbon(r, p.loop, 3, 'draft', new MeshCache()).mesh.positions]),
      );
      expect(shapes[1]).toEqual(shapes[0]);
    }
  });
  it('that cannot be used changes nothing and says why', () => {
    const of = (text: string, into = piece) => {
      const pasted = pasteRibbons(into, text);
      return pasted.ok ? '' : `${pasted.none ? '' : 'told: '}${pasted.message}`;
    };
    expect(of('Dear all')).toBe('What was copied holds no ribbons.');
    expect(of('{"maypole":"piece","version":7}')).toMatch(/^told: What was copied cannot be used: /);
    expect(of(writePiece(newPiece('Empty')))).toBe('told: What was copied is a piece without ribbons.');
    const full = { ...piece, ribbons: Array.from({ length: 63 }, (_, i) => ({ ...apart, id: `r${i}` })) };
    expect(of(clipRibbons(piece, ['body']), full)).toContain(
      '3 ribbons were copied, and this piece has room for 1 more',
    );
  });
});
