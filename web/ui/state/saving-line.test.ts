import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { randomSource } from '@maypole/core/maths/random';
import { writePiece } from '@maypole/core/piece/read';
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { connect } from '@/server/data/db';
import { listRevisions } from '@/server/past/revisions';
import { createPiece, loadPiece, savePiece, type Save } from '@/server/pieces/pieces';
import { addStep } from './actions';
import { backupsOf } from './backup';
import { deliverLeft, saveNow, startAutosave } from './saving';
import { useEditor } from './store';
import { rounds } from '@maypole/core/fixtures/effort';

// The test command starts a throw-away database and names it here.
const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

const now = () => useEditor.getState();
const edit = () => addStep(now().piece.ribbons[0].id, 'smooth');
const stepsOf = (source: string) => (JSON.parse(source) as { ribbons: { steps: unknown[] }[] }).ribbons[0].steps.length;
const soon = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const quiet = () => vi.waitFor(() => expect(now().save).toBe('saved'), { timeout: 20_000, interval: 20 });

/** What the way to the server does with each request: how long it takes there and back, and what is lost. */
interface Way {
  readonly there: number;
  readonly back: number;
  readonly lost?: 'request' | 'answer';
  /** Sent once more so many milliseconds later. */
  readonly again?: number;
}
let way: () => Way = () => ({ there: 0, back: 0 });
let listeners: Map<string, () => void>;
let arriving: Promise<unknown>[];

beforeEach(() => {
  const store = new Map<string, string>();
  listeners = new Map();
  arriving = [];
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => store.set(k, v),
    removeItem: (k: string) => store.delete(k),
    key: (i: number) => [...store.keys()][i] ?? null,
    get length() {
      return store.size;
    },
  });
  vi.stubGlobal('window', {
    addEventListener: (k: string, f: () => void) => listeners.set(k, f),
    removeEventListener: (k: string) => listeners.delete(k),
  });
  vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
    const id = path.split('/')[3];
    if (init?.method !== 'PUT') return Response.json(await loadPiece(db, id));
    const arrive = () => savePiece(db, id, JSON.parse(init.body as string) as Save);
    const { there, back, lost, again } = way();
    await soon(there);
    if (lost === 'request') throw new TypeError('lost on the way');
    const answer = await arrive();
    if (again !== undefined) arriving.push(soon(again).then(arrive));
    await soon(back);
    if (lost === 'answer') throw new TypeError('lost on the way back');
    return Response.json(answer, { status: 'error' in answer ? 409 : 200 });
  });
});
afterEach(async () => {
  await Promise.all(arriving);
  vi.unstubAllGlobals();
  way = () => ({ there: 0, back: 0 });
});

async function opened(): Promise<string> {
  const piece = { ...newPiece('Vane'), ribbons: [newRibbon('torus', 0, 'Ring')] };
  const { id, revision } = await createPiece(db, writePiece(piece));
  now().open(id, piece, revision);
  return id;
}
/** Nobody else was there: nothing is aside, and the newest is shown. */
async function expectShown(id: string, steps: number) {
  await Promise.all(arriving);
  expect(stepsOf((await loadPiece(db, id)).source)).toBe(steps);
  expect((await listRevisions(db, id)).revisions.filter((r) => r.aside)).toEqual([]);
}

describe('one page and the real server', () => {
  it('leaving while a save is under way: the newest edit is what is shown', async () => {
    const id = await opened();
    const stop = startAutosave();
    // The first save takes long there; the last word of the page is there before it, or after.
    for (const [first, last] of [
      [300, 0],
      [0, 300],
    ]) {
      const before = now().piece.ribbons[0].steps.length;
      way = () => ({ there: first, back: 400 });
      edit();
      await vi.waitFor(() => expect(now().save).toBe('saving'), { timeout: 5000, interval: 10 });
      edit();
      way = () => ({ there: last, back: 0 });
      listeners.get('pagehide')!();
      await soon(900);
      way = () => ({ there: 0, back: 0 });
      await quiet();
      await expectShown(id, before + 2);
    }
    stop();
  });
  it('the next visit finds what the page has left, sent or not, and nobody in another tab', async () => {
    for (const lost of ['request', 'answer'] as const) {
      const id = await opened();
      const stop = startAutosave();
      edit();
      way = () => ({ there: 0, back: 0, lost });
      listeners.get('pagehide')!();
      await vi.waitFor(async () => expect(backupsOf(id)).toHaveLength(1));
      await soon(50);
      // The page is gone: nothing of it is tried again.
      useEditor.setState({ save: 'saved' });
      stop();
      way = () => ({ there: 0, back: 0 });
      const [{ as }] = await deliverLeft(id);
      expect(as).toEqual({ is: 'saved', revision: 2 });
      expect(backupsOf(id)).toEqual([]);
      await expectShown(id, 2);
    }
  });
  it('whatever is late, doubled, in another order or lost, all edits arrive and nothing is aside', async () => {
    for (let seed = 1; seed <= rounds(2, 4); seed++) {
      const random = randomSource(seed);
      const id = await opened();
      const stop = startAutosave();
      way = () => ({
        there: random() * 120,
        back: random() * 120,
        lost: random() < 0.25 ? (random() < 0.5 ? 'request' : 'answer') : undefined,
        again: random() < 0.5 ? random() * 400 : undefined,
      });
      for (let k = 0; k < 8; k++) {
        edit();
        if (random() < 0.5) listeners.get('pagehide')!();
        await soon(random() * 900);
      }
      way = () => ({ there: 0, back: 0 });
      await quiet();
      await expectShown(id, 9);
      expect(now().conflict).toBeNull();
      stop();
      await soon(10);
    }
  }, 300_000);
  it('goes on with its own version after it met another’s: the same text, on what is shown by now', async () => {
    const id = await opened();
    const stop = startAutosave();
    const theirs = writePiece({ ...now().piece, name: 'Theirs' });
    await savePiece(db, id, { source: theirs, basedOn: 1 });
    edit();
    await vi.waitFor(() => expect(now().save).toBe('conflict'), { timeout: 20_000, interval: 20 });
    expect(now().conflict).toMatchObject({ head: 2, kept: 3, basedOn: 1 });
    useEditor.setState({ revision: 2, conflict: null, save: 'waiting' });
    await saveNow();
    expect(now()).toMatchObject({ save: 'saved', revision: 4 });
    expect(stepsOf((await loadPiece(db, id)).source)).toBe(2);
    stop();
  });
});
