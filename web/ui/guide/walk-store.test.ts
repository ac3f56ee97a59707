import { walks } from '@maypole/core/guide/walks';
import { beforeEach, expect, it, vi } from 'vitest';
import { beginWalk, goOn, leaveWalk, resumeWalk, useWalk } from './walk-store';

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
    removeItem: (k: string) => void store.delete(k),
  });
  leaveWalk();
});
const [first] = walks;
const at = () => [useWalk.getState().walk?.id ?? null, useWalk.getState().at];

it('goes stop by stop, goes on after a reload in its piece, and ends after the last', () => {
  beginWalk(first.id, 'piece');
  goOn();
  goOn();
  expect(at()).toEqual([first.id, 2]);
  useWalk.setState({ walk: null, piece: '', at: 0 });
  resumeWalk('piece');
  expect(at()).toEqual([first.id, 2]);
  for (let i = 2; i < first.stops.length; i++) goOn();
  expect(at()).toEqual([null, 0]);
  resumeWalk('piece');
  expect(at()).toEqual([null, 0]);
});

it('is left for good, and is not met in another piece', () => {
  beginWalk(first.id, 'piece');
  resumeWalk('another');
  expect(at()).toEqual([null, 0]);
  resumeWalk('piece');
  expect(at()).toEqual([first.id, 0]);
  leaveWalk();
  resumeWalk('piece');
  expect(at()).toEqual([null, 0]);
});

it('what is kept and is no walk is passed over', () => {
  for (const kept of ['{', '7', '{"walk":"nowhere","piece":"piece"}', '{"walk":{},"piece":"piece"}']) {
    store.set('maypole-walk', kept);
    resumeWalk('piece');
    expect(at()).toEqual([null, 0]);
  }
  store.set('maypole-walk', JSON.stringify({ walk: first.id, piece: 'piece', at: 999 }));
  resumeWalk('piece');
  expect(at()).toEqual([first.id, 0]);
});
