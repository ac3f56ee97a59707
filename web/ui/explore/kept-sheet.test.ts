import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { beforeEach, expect, it, vi } from 'vitest';
import { useEditor } from '../state/store';
import { closeSheet, openSheet, useSheet } from './sheet-store';

vi.mock('../state/player', () => ({ pause: vi.fn() }));

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  });
});
const ribbon = {
  ...newRibbon('torus', 0),
  id: 'ring',
  steps: [newStep('torus', {}, 'form'), newStep('twist', {}, 'twist')],
};
const open = (id: string) => {
  useEditor.getState().open(id, { ...newPiece(id), ribbons: [ribbon] }, 1);
  openSheet();
  return useSheet.getState();
};

it('a sheet opens as it was left, for each piece by itself, also after other pages', () => {
  const first = open('one');
  const [key, other] = first.variables.map((v) => v.key);
  useSheet.setState({ chosen: new Set([key]), locked: new Set([other]), seed: 7, count: 40, reach: 0.25 });
  closeSheet();
  open('two');
  closeSheet();
  const again = open('one');
  expect([...again.chosen]).toEqual([key]);
  expect([...again.locked]).toEqual([other]);
  expect([again.seed, again.count, again.reach]).toEqual([7, 40, 0.25]);
  closeSheet();
});

it('values that are gone are left out, and what cannot be read is passed over', () => {
  store.set(
    'maypole-sheet-three',
    JSON.stringify({
      chosen: ['nothing'],
      locked: ['nothing'],
      reach: 0.5,
      count: 12,
      seed: 3,
      way: { type: 'axes', across: 'nothing', down: '' },
    }),
  );
  const opened = open('three');
  expect([opened.seed, opened.way, opened.locked.size]).toEqual([3, { type: 'spread' }, 0]);
  expect(opened.chosen.size).toBeGreaterThan(0);
  closeSheet();
  store.set('maypole-sheet-four', '{"count": 1e9}');
  expect(open('four').count).toBeLessThanOrEqual(60);
  closeSheet();
});
