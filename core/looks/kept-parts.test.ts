import { describe, expect, it } from 'vitest';
import { LIMITS } from '../declare/limits';
import type { NumberParam } from '../declare/params';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { adding, wave } from '../starts/start';
import { stepKind } from '../steps/index';
import { evaluateNumber } from '../time/value';
import { motionFor, motionFrom, motionLook, ribbonLook, stepsLook, withRibbons, withSteps } from './kept-parts';

const path = { ...newRibbon('curve', 1, 'Path'), id: 'path' };
const bead = {
  ...newRibbon('sphere', 0, 'Bead'),
  id: 'bead',
  steps: [newStep('sphere'), newStep('twist', { angle: wave(0, 90) }), newStep('repeat-path', { other: 'path' })],
};
const piece: Piece = { ...newPiece('Both'), ribbons: [path, bead] };
const other: Piece = { ...newPiece('Other'), ribbons: [{ ...newRibbon('box', 0, 'Box'), id: 'box' }] };
const kept = (look: Piece) => {
  const read = readPiece(writePiece(look));
  if (!read.ok) throw new Error(read.message);
  return read.piece;
};

/** The declaration of a number of a step. */
function numberOf(kind: string, name: string): NumberParam {
  const param = stepKind(kind).params[name];
  if (param.type !== 'number') throw new Error(`${kind} has no number ${name}.`);
  return param;
}

describe('kept parts of a piece', () => {
  it('a ribbon brings those that it names', () => {
    const look = kept(ribbonLook('Beads', piece, ['bead']));
    expect(look.name).toBe('Beads');
    const made = withRibbons(other, look);
    if (!made.ok) throw new Error(made.message);
    const names = made.piece.ribbons.map((r) => r.name);
    expect(names).toEqual(['Box', 'Path', 'Bead']);
    const [, copy, beads] = made.piece.ribbons;
    expect(beads.steps[2].values.other).toBe(copy.id);
    expect(copy.id).not.toBe('path');
  });

  it('steps stand at the end of another ribbon, with identifiers of their own', () => {
    const look = kept(stepsLook('Chain', piece, 'bead'));
    const made = withSteps(other, 'box', look);
    if (!made.ok) throw new Error(made.message);
    const [box, copy] = made.piece.ribbons;
    expect(box.steps.map((s) => s.kind)).toEqual(['box', 'twist', 'repeat-path']);
    expect(box.steps[2].values.other).toBe(copy.id);
    expect(new Set(box.steps.map((s) => s.id)).size).toBe(3);
    expect(readPiece(writePiece(made.piece))).toMatchObject({ ok: true });
    // One alone, without the path that only another step needs.
    const one = withSteps(other, 'box', kept(stepsLook('One', piece, 'bead', [bead.steps[1].id])));
    expect(one.ok && one.piece.ribbons.map((r) => r.name)).toEqual(['Box']);
    expect(withSteps(other, 'box', kept(stepsLook('None', piece, 'bead', [])))).toMatchObject({ ok: false });
  });

  it('steps need room for themselves and for the ribbons that they bring, whose names are free', () => {
    const look = kept(stepsLook('Chain', piece, 'bead'));
    const named = { ...other, ribbons: [...other.ribbons, newRibbon('curve', 1, 'Path')] };
    const made = withSteps(named, 'box', look);
    expect(made.ok && made.piece.ribbons.map((r) => r.name)).toEqual(['Box', 'Path', 'Path 2']);
    const full = { ...other, ribbons: [...other.ribbons] };
    while (full.ribbons.length < LIMITS.ribbons) full.ribbons.push(newRibbon('box', 1, `Box ${full.ribbons.length}`));
    expect(withSteps(full, 'box', look)).toMatchObject({
      ok: false,
      message: expect.stringContaining('room for 0 more'),
    });
    const [box, ...rest] = other.ribbons;
    const long = { ...box, steps: [box.steps[0]] };
    while (long.steps.length < LIMITS.stepsOfRibbon) long.steps.push(newStep('twist', {}));
    expect(withSteps({ ...other, ribbons: [long, ...rest] }, 'box', look)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/steps are kept, and this ribbon has room for 0 more/),
    });
  });

  it('a motion goes as far as the value that it is put on', () => {
    const motion = motionFrom(kept(motionLook('Sway', piece.loop, wave(-3, 5))))!;
    const end = numberOf('taper', 'end');
    const at = (v: ReturnType<typeof motionFor>, share: number) =>
      evaluateNumber(v, { frame: share * 100, frames: 100 });
    const moved = motionFor(motion, wave(0.2, 0.6), end, 100);
    expect(at(moved, 0.25)).toBeCloseTo(0.6, 4);
    expect(at(moved, 0.75)).toBeCloseTo(0.2, 4);
    const still = motionFor(motion, 0.5, end, 100);
    expect(at(still, 0.25)).toBeGreaterThan(at(still, 0.75));
    // What goes round goes round as it did: 360° more a loop.
    const turning = adding(0, 360);
    const angle = numberOf('spin', 'angle');
    expect(motionFor(turning, 0, { ...angle, cyclic: 360 }, 100)).toBe(turning);
    expect(motionFrom(newPiece('Nothing'))).toBeUndefined();
  });
});
