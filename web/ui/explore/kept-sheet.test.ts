import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { beforeEach, expect, it, vi } from 'vitest';
import { useEditor } from '../state/store';
import { keptSheet } from '@maypole/core/explore/sheet-settings';
import { sheetToKeep } from './kept-sheet';
import { closeSheet, openKeptSheet, openSheet, useSheet, type Tile } from './sheet-store';

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

it('a sheet that is kept opens with its throws and settings, and between the same two pieces', () => {
  const { base } = open('five');
  const tiles = [-1, 0, 4, 9].map((index, id) => ({ id, index, piece: base }) as Tile);
  const other = { ...base, ribbons: [] };
  useSheet.setState({ tiles, seed: 12, count: 24, way: { type: 'mix', a: base, b: other } });
  const kept = keptSheet.parse(JSON.parse(JSON.stringify(sheetToKeep(useSheet.getState()))));
  expect(kept).toMatchObject({ seed: 12, count: 24, throws: [0, 4, 9] });
  closeSheet();
  open('six');
  closeSheet();
  expect(openKeptSheet(base, kept)).toBeNull();
  expect(useSheet.getState()).toMatchObject({
    open: true,
    base,
    seed: 12,
    throws: [0, 4, 9],
    way: { type: 'mix', a: base, b: other },
    tiles: [],
  });
  closeSheet();
  // Along axes every place has its tile, and a document that cannot be read is told of.
  useSheet.setState({ way: { type: 'axes', across: 'x', down: '' } });
  expect(sheetToKeep(useSheet.getState())).not.toHaveProperty('throws');
  expect(openKeptSheet(base, { ...kept, way: { type: 'mix', a: '{}', b: '{}' } })).toContain('not a Maypole piece');
  expect(useSheet.getState().open).toBe(false);
});
