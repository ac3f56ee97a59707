import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { copyRibbons } from '../piece/copy';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '../piece/piece';
import { proveSeam } from '../seam/proof';
import { comparePieces, differences } from './differences';
import { liken } from './liken';

const ring = (angle: number, name = 'Ring'): RibbonDoc => ({
  ...newRibbon('torus', 0, name),
  steps: [newStep('torus'), newStep('twist', { angle })],
});
const piece = (...ribbons: RibbonDoc[]): Piece => ({ ...newPiece('Alike'), ribbons });
const words = (a: Piece, b: Piece) =>
  differences(a, liken(a, b)).map((d) => `${d.place}: ${d.what} ${d.from} → ${d.to}`.replace('  →', ' →'));

describe('two pieces without a common past', () => {
  it('are compared value by value, and not as all removed and all added', () => {
    const [a, b] = [piece(ring(40)), piece(ring(90))];
    expect(new Set(differences(a, b).map((d) => d.to))).toEqual(new Set(['added', 'removed']));
    expect(comparePieces(a, b)).toEqual(differences(a, liken(a, b)));
    expect(words(a, b)).toEqual(['Ring: Twist angle 40° → 90°']);
  });
  it('that are the same differ in nothing, whatever their things are called inside', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const a = new Dice(seed).piece();
      const b = { ...a, ribbons: copyRibbons(a.ribbons, (r) => r.name) };
      expect(differences(a, liken(a, b))).toEqual([]);
    }
  });
  it('with a common past have what was exchanged told as removed and added', () => {
    const [kept, gone, come] = [ring(1, 'Kept'), ring(2, 'Other'), ring(3, 'Other')];
    const said = comparePieces(piece(kept, gone), piece(kept, come)).map((d) => `${d.what} ${d.to}`);
    expect(said).toContain('Ribbon Other added');
    expect(said).toContain('Ribbon Other removed');
  });
  it('of one past are left as they are', () => {
    const a = new Dice(3).piece();
    expect(liken(a, a)).toBe(a);
    const b = { ...a, name: 'Other' };
    expect(liken(a, b)).toBe(b);
  });
  it('have ribbons that go together by name and form, then by form, then by name; the rest is new or gone', () => {
    const a = piece(ring(1, 'One'), ring(2, 'Two'), { ...newRibbon('box', 0, 'Three') });
    const b = piece(ring(20, 'Two'), ring(10, 'Uno'), newRibbon('sphere', 0, 'Three'), newRibbon('plane', 0, 'Floor'));
    const told = words(a, b);
    expect(told).toContain('Two: Twist angle 2° → 20°');
    expect(told).toContain('Uno: Name One → Uno');
    expect(told).toContain('Uno: Twist angle 1° → 10°');
    expect(told).toContain('Floor: Ribbon Floor → added');
    expect(told.some((w) => w.includes('removed') && w.startsWith('Three'))).toBe(true);
    expect(told.some((w) => w.startsWith('Ribbon Three'))).toBe(false);
  });
  it('keep what follows what, under its new name', () => {
    const follower = (of: string) => ({ motion: 'follow', of, scale: 2, offset: 0, delay: 0, otherwise: 0 }) as never;
    const made = () => {
      const first = ring(40, 'Leads');
      const of = `${first.id}/${first.steps[1].id}/angle`;
      const second = { ...ring(0, 'Follows'), id: `${first.id}x` };
      return piece(first, { ...second, steps: [second.steps[0], newStep('twist', { angle: follower(of) })] });
    };
    const [a, b] = [made(), made()];
    const like = liken(a, b);
    expect(like.ribbons[1].steps[1].values.angle).toEqual(a.ribbons[1].steps[1].values.angle);
    expect(words(a, b)).toEqual([]);
    // It is a piece as before: nothing follows what is not there.
    expect(proveSeam(like).findings.filter((f) => f.kind === 'lost')).toEqual([]);
  });
  it('use every identifier once', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const like = liken(new Dice(seed).piece(), new Dice(seed + 100).piece());
      const ids = [...like.ribbons.flatMap((r) => [r.id, ...r.steps.map((s) => s.id)])];
      expect(new Set(ids).size).toBe(ids.length);
    }
  });
});
