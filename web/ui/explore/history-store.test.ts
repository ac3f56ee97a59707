import { newPiece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { RevisionSummary } from '@/contract/pieces';
import { keepAs, nameRevision, openPast, usePast, wantRevision } from './history-store';

const server = vi.hoisted(() => ({
  numbers: [1],
  marks: new Map<number, string | null>(),
  asked: [] as number[],
  away: false,
}));
const told = vi.hoisted(() => [] as string[]);
vi.mock('../parts/toasts', () => ({ tell: () => undefined, tellTrouble: (words: string) => told.push(words) }));
vi.mock('../api', () => ({
  listRevisions: () =>
    Promise.resolve({
      bytes: 1000,
      revisions: [...server.numbers].reverse().map((number): RevisionSummary => ({
        number,
        basedOn: null,
        aside: false,
        mark: server.marks.get(number) ?? null,
        sheet: false,
        createdAt: '2026-11-27T10:00:00Z',
      })),
    }),
  loadRevision: (_: string, number: number) => {
    server.asked.push(number);
    return Promise.resolve({ source: number === 9 ? '{}' : writePiece(newPiece(`Save ${number}`)) });
  },
  markRevision: (_: string, number: number, mark: string | null) =>
    server.away
      ? Promise.reject(new Error('The server is away.'))
      : Promise.resolve(void server.marks.set(number, mark)),
  keepTake: () => Promise.resolve(void server.numbers.push(server.numbers.length + 1)),
}));
const settled = () =>
  vi.waitFor(() => expect(server.asked.length).toBe(usePast.getState().pieces.size), { timeout: 20_000 });

beforeEach(() => {
  Object.assign(server, { numbers: [1, 2], marks: new Map(), asked: [], away: false });
  told.length = 0;
  usePast.setState({ id: '', list: null, pieces: new Map(), picked: null });
});

describe('the past of a piece', () => {
  it('is fetched once a save, and stays while others come', async () => {
    await openPast('a');
    for (let i = 0; i < 3; i++) wantRevision('a', 2);
    await settled();
    expect(server.asked).toEqual([2]);
    usePast.setState({ picked: 2 });
    server.numbers.push(3);
    await openPast('a');
    expect(usePast.getState().list!.map((r) => r.number)).toEqual([3, 2, 1]);
    expect([usePast.getState().picked, usePast.getState().pieces.size]).toEqual([2, 1]);
    await openPast('b');
    expect([usePast.getState().picked, usePast.getState().pieces.size]).toEqual([null, 0]);
  });
  it('tells of a save that cannot be read, in its place', async () => {
    await openPast('a');
    wantRevision('a', 9);
    await settled();
    expect(typeof usePast.getState().pieces.get(9)).toBe('string');
  });
  it('has names, and keeps what it shows where the server is away', async () => {
    await openPast('a');
    await nameRevision('a', 1, 'Calm');
    expect(usePast.getState().list!.at(-1)!.mark).toBe('Calm');
    server.away = true;
    await nameRevision('a', 1, null);
    expect(usePast.getState().list!.at(-1)!.mark).toBe('Calm');
    expect(told).toEqual(['The server is away.']);
    expect(await keepAs('a', '{}', 'Take')).toBe(true);
    expect(usePast.getState().list).toHaveLength(3);
  });
});
