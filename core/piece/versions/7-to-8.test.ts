import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { copyCount } from '../../copies/copies';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { linkPiece } from '../link';
import { newRibbon, PIECE_VERSION, type Piece } from '../piece';
import { readPiece } from '../read';
import { from7to8 } from './7-to-8';

type Doc = Record<string, unknown>;

const file = (name: string) =>
  JSON.parse(
    readFileSync(path.join(import.meta.dirname, `../../fixtures/version-7/${name}.maypole.json`), 'utf8'),
  ) as Doc & { ribbons: { id: string; steps: { kind: string; values: Doc }[] }[] };

const opened = (document: unknown): Piece => {
  const result = readPiece(JSON.stringify(document));
  if (!result.ok) throw new Error(result.message);
  return result.piece;
};
const repeatsOf = (piece: Piece) => piece.ribbons.flatMap((r) => r.steps.filter((s) => 'takes' in s.values));

describe('pieces of version 7', () => {
  it('leave out the sources that they do not name, and are otherwise what they were', () => {
    for (const name of ['rain-gauge', 'dew-point']) {
      const old = file(name);
      const piece = opened(old);
      expect(piece.version).toBe(PIECE_VERSION);
      expect(repeatsOf(piece).length).toBeGreaterThan(0);
      for (const [i, { steps }] of old.ribbons.entries())
        for (const [j, { values }] of steps.entries()) {
          const now = piece.ribbons[i].steps[j].values;
          for (const [key, value] of Object.entries(values))
            if (key in now) expect(now[key]).toEqual(value);
            else expect([key, value]).toEqual([key, key.endsWith('Share') ? 1 : '']);
          expect(Object.keys(now).length).toBe(Object.keys(values).length - ('takes' in values ? 26 : 0));
        }
    }
  });
  it('keep those that they name, with their shares', () => {
    const old = file('rain-gauge');
    const step = old.ribbons.flatMap((r) => r.steps).find((s) => 'takes' in s.values)!;
    const others = Array.from({ length: 5 }, (_, i) => ({ ...newRibbon('box', i), id: `other${i}` }));
    const named = ['second', 'third', 'fourth', 'fifth', 'sixth'];
    Object.assign(
      step.values,
      { takes: 'chance', sixthShare: 3 },
      Object.fromEntries(named.map((n, i) => [n, `other${i}`])),
    );
    const piece = opened({ ...old, ribbons: [...old.ribbons, ...others] });
    const { values } = repeatsOf(piece)[0];
    expect(values).toMatchObject({ fourth: 'other2', sixth: 'other4', sixthShare: 3 });
    expect(values).not.toHaveProperty('seventh');
    expect(values).not.toHaveProperty('fourthShare');
    const linked = linkPiece(piece);
    const at = linked.ribbons.findIndex((r) => r.steps.some((s) => 'takes' in s.values));
    const made = evaluateRibbon(linked.ribbons[at], piece.loop, 0, 'draft', new MeshCache());
    expect(made.problems).toEqual([]);
    expect(copyCount(made.mesh.copies!)).toBeGreaterThan(5);
  });
  it('takes anything without throwing', () => {
    for (const x of [
      null,
      1,
      'a',
      [],
      {},
      { ribbons: 3 },
      { ribbons: [null, { steps: [1, { values: { takes: 2 } }] }] },
    ])
      expect(() => from7to8(x)).not.toThrow();
  });
});
