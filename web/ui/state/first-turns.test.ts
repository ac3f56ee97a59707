import { starts } from '@maypole/core/starts/index';
import { beforeEach, expect, it, vi } from 'vitest';
import { firstTurns, forgetStart, noteStart } from './first-turns';

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
    removeItem: (k: string) => void store.delete(k),
  });
});

it.each(starts.map((s) => [s.title, s] as const))('%s: its values to turn first are found in it', (_, start) => {
  const piece = start.make();
  noteStart('id', start.id);
  const turns = firstTurns('id', piece);
  expect(turns).toHaveLength(start.first.length);
  for (const { address, words } of turns) {
    const { owner } = address;
    if (owner.type !== 'step') throw new Error('not of a step');
    const step = piece.ribbons.find((r) => r.id === owner.ribbon)!.steps.find((s) => s.id === owner.item);
    expect(step?.values, words).toHaveProperty(address.param);
  }
  // What was taken out is not offered any more, and nothing is in another piece.
  expect(firstTurns('id', { ...piece, ribbons: [] })).toEqual([]);
  expect(firstTurns('other', piece)).toEqual([]);
  forgetStart('id');
  expect(firstTurns('id', piece)).toEqual([]);
});
