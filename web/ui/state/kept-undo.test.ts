import { newPiece, newRibbon, type Piece } from '@maypole/core/piece/piece';
import { beforeEach, expect, it, vi } from 'vitest';
import { keepUndo, keptUndo } from './kept-undo';
import { useEditor } from './store';

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  });
});
const piece: Piece = { ...newPiece('Kept'), ribbons: [newRibbon('torus', 0)] };
const rename = (name: string) => useEditor.getState().edit(`To ${name}`, (p) => ({ ...p, name }));

it('gives the edits back that led to a piece, in their order', () => {
  useEditor.getState().open('one', piece, 1);
  for (const name of ['A', 'B', 'C']) rename(name);
  keepUndo();
  const now = useEditor.getState().piece;
  const past = keptUndo('one', now);
  expect(past.map((e) => [e.label, e.piece.name])).toEqual([
    ['To A', 'Kept'],
    ['To B', 'A'],
    ['To C', 'B'],
  ]);
  useEditor.setState({ history: { past, future: [] } });
  for (const name of ['B', 'A', 'Kept']) {
    useEditor.getState().undo();
    expect(useEditor.getState().piece.name).toBe(name);
  }
  expect(useEditor.getState().piece).toEqual(piece);
});

it('gives nothing for another piece, for one that was changed elsewhere, and for what is broken', () => {
  useEditor.getState().open('one', piece, 1);
  rename('A');
  keepUndo();
  const now = useEditor.getState().piece;
  expect(keptUndo('two', now)).toEqual([]);
  expect(keptUndo('one', { ...now, name: 'Elsewhere' })).toEqual([]);
  kept.set('maypole-undo-one', kept.get('maypole-undo-one')!.replace('\\"maypole\\"', 'x'));
  expect(keptUndo('one', now)).toEqual([]);
  kept.set('maypole-undo-one', '{');
  expect(keptUndo('one', now)).toEqual([]);
});

it('keeps the latest where there is no room for all', () => {
  const large: Piece = { ...piece, ribbons: Array.from({ length: 64 }, (_, i) => newRibbon('torus', i)) };
  useEditor.getState().open('one', large, 1);
  for (let i = 0; i < 120; i++) rename(`Edit ${i}`);
  keepUndo();
  const past = keptUndo('one', useEditor.getState().piece);
  expect(past.length).toBeGreaterThan(10);
  expect(past.length).toBeLessThan(120);
  expect(past.at(-1)!.label).toBe('To Edit 119');
  expect(kept.get('maypole-undo-one')!.length).toBeLessThan(3_000_000);
});
