import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Line } from '@/contract/line';
import { addStep } from './actions';
import { backupsOf } from './backup';
import { saveNow, startAutosave } from './saving';
import { useEditor } from './store';

const backupOf = (id: string) => backupsOf(id)[0] ?? null;
const now = () => useEditor.getState();
const edit = () => addStep(now().piece.ribbons[0].id, 'smooth');
const stepsOf = (source: string) => (JSON.parse(source) as { ribbons: { steps: unknown[] }[] }).ribbons[0].steps.length;

/** A server that answers with the next revision, or as it is told; and what it was sent. */
const server = {
  sent: [] as { basedOn: number; source: string; line: Line; keepalive: boolean }[],
  answer: null as null | (() => Response | Promise<Response>),
};
const listeners = new Map<string, () => void>();
let store: Map<string, string>;
/** What the server has, when it is asked. */
let head: { revision: number; source: string } | null = null;

beforeEach(() => {
  vi.useFakeTimers();
  store = new Map();
  server.sent.length = 0;
  server.answer = null;
  listeners.clear();
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
  head = null;
  vi.stubGlobal('fetch', async (_: string, init?: RequestInit) => {
    if (!init?.method) return Response.json({ id: 'id', ...head });
    server.sent.push({
      ...(JSON.parse(init.body as string) as { basedOn: number; source: string; line: Line }),
      keepalive: init.keepalive === true,
    });
    return server.answer ? server.answer() : Response.json({ revision: 4 + server.sent.length });
  });
  now().open('id', { ...newPiece('Vane'), ribbons: [newRibbon('torus', 0, 'Ring')] }, 4);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('saving by itself', () => {
  it('waits until edits have stopped for a moment, and sends the last state once', async () => {
    const stop = startAutosave();
    edit();
    await vi.advanceTimersByTimeAsync(500);
    edit();
    await vi.advanceTimersByTimeAsync(500);
    expect(server.sent).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(300);
    expect(server.sent).toHaveLength(1);
    expect(stepsOf(server.sent[0].source)).toBe(3);
    expect(now().save).toBe('saved');
    stop();
    await vi.advanceTimersByTimeAsync(0);
    expect(server.sent).toHaveLength(1);
  });
  it('sends what an earlier visit left and was brought back before it began', async () => {
    edit();
    const stop = startAutosave();
    await vi.advanceTimersByTimeAsync(800);
    expect(server.sent).toHaveLength(1);
    expect(now().save).toBe('saved');
    stop();
  });
  it('moving the playhead sends nothing', async () => {
    const stop = startAutosave();
    useEditor.setState({ frame: 7 });
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.sent).toHaveLength(0);
    stop();
  });
  it('sends what is left when the editor is closed, and is deaf from then on', async () => {
    const stop = startAutosave();
    edit();
    stop();
    await vi.advanceTimersByTimeAsync(0);
    expect(server.sent).toHaveLength(1);
    expect(listeners.size).toBe(0);
    edit();
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.sent).toHaveLength(1);
  });
  it('goes on trying while the server is away, and sends what was done meanwhile', async () => {
    const stop = startAutosave();
    server.answer = () => Promise.reject(new TypeError('away'));
    edit();
    await vi.advanceTimersByTimeAsync(800);
    expect(now().save).toBe('offline');
    await vi.advanceTimersByTimeAsync(8000);
    expect(server.sent.length).toBeGreaterThanOrEqual(2);
    edit();
    server.answer = null;
    await vi.advanceTimersByTimeAsync(9000);
    expect(now().save).toBe('saved');
    expect(stepsOf(server.sent.at(-1)!.source)).toBe(3);
    expect(store.size).toBe(0);
    stop();
  });
  it('that is away for an hour of work is asked evenly, and has everything at once when it is back', async () => {
    const stop = startAutosave();
    server.answer = () => Promise.reject(new TypeError('away'));
    // An edit every half a minute.
    for (let k = 0; k < 120; k++) {
      edit();
      await vi.advanceTimersByTimeAsync(30_000);
    }
    expect(now().save).toBe('offline');
    // Once every four seconds, and once after each edit; not more and more often.
    expect(server.sent.length).toBeLessThan(3600 / 4 + 121);
    const minute = server.sent.length;
    await vi.advanceTimersByTimeAsync(60_000);
    expect(server.sent.length - minute).toBeLessThanOrEqual(15);
    // The browser has it all meanwhile.
    expect(stepsOf(JSON.stringify((backupOf('id') as { piece: object }).piece))).toBe(121);
    server.answer = null;
    const before = server.sent.length;
    await vi.advanceTimersByTimeAsync(10_000);
    expect(server.sent.length - before).toBe(1);
    expect(stepsOf(server.sent.at(-1)!.source)).toBe(121);
    expect(now()).toMatchObject({ save: 'saved', saveTrouble: null });
    expect(store.size).toBe(0);
    stop();
  });
  it('asks to sign in again, and goes on by itself once that is done', async () => {
    const stop = startAutosave();
    server.answer = () => Promise.resolve(Response.json({ error: 'Sign in first.' }, { status: 401 }));
    edit();
    await vi.advanceTimersByTimeAsync(1000);
    expect(now()).toMatchObject({ save: 'signed-out', saveTrouble: 'Sign in first.' });
    expect(backupOf('id')).not.toBeNull();
    server.answer = null;
    await vi.advanceTimersByTimeAsync(5000);
    expect(now().save).toBe('saved');
    stop();
  });
  it('says that nothing is kept where the browser keeps nothing, and says so once', async () => {
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: () => {
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      },
      removeItem: () => undefined,
    });
    const stop = startAutosave();
    server.answer = () => Promise.reject(new TypeError('network'));
    edit();
    await vi.advanceTimersByTimeAsync(1000);
    expect(now().save).toBe('offline');
    expect(now().saveTrouble).toContain('leave this page open until it is saved');
    const tries = server.sent.length;
    await vi.advanceTimersByTimeAsync(60_000);
    // It is tried again every few seconds, not without end at once.
    expect(server.sent.length - tries).toBeLessThan(20);
    server.answer = null;
    await vi.advanceTimersByTimeAsync(5000);
    expect(now()).toMatchObject({ save: 'saved', saveTrouble: null });
    expect(new Set(server.sent.map((s) => s.source)).size).toBe(1);
    stop();
  });
  it('says that the disk is full, and goes on by itself once there is room', async () => {
    const stop = startAutosave();
    server.answer = () => Promise.resolve(Response.json({ error: 'The disk is full.' }, { status: 507 }));
    edit();
    await vi.advanceTimersByTimeAsync(1000);
    expect(now()).toMatchObject({ save: 'full', saveTrouble: 'The disk is full.' });
    expect(store.size).toBe(1);
    server.answer = null;
    await vi.advanceTimersByTimeAsync(9000);
    expect(now().save).toBe('saved');
    expect(store.size).toBe(0);
    stop();
  });
});

describe('leaving the page', () => {
  const leave = () => listeners.get('pagehide')!();
  it('keeps unsent work in the browser first, and lets it go once the server has it', async () => {
    const stop = startAutosave();
    edit();
    let arrived!: (r: Response) => void;
    server.answer = () => new Promise<Response>((r) => (arrived = r));
    leave();
    expect(backupOf('id')).toMatchObject({ basedOn: 4 });
    expect(backupOf('id')!.piece!.ribbons[0].steps).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(0);
    expect(server.sent[0]).toMatchObject({ basedOn: 4, keepalive: true });
    arrived(Response.json({ revision: 5 }));
    await vi.advanceTimersByTimeAsync(0);
    expect(backupOf('id')).toBeNull();
    server.answer = null;
    stop();
    await vi.advanceTimersByTimeAsync(0);
  });
  it('keeps it where the last word did not arrive, or met another edit', async () => {
    for (const answer of [
      () => Promise.reject(new TypeError('gone')),
      () =>
        Response.json(
          { error: 'Changed elsewhere.', head: 9, kept: 10, saved: { by: null, at: '2026-12-01T12:00:00Z' } },
          { status: 409 },
        ),
    ]) {
      now().open('id', { ...newPiece('Vane'), ribbons: [newRibbon('torus', 0, 'Ring')] }, 4);
      const stop = startAutosave();
      edit();
      server.answer = answer;
      leave();
      await vi.advanceTimersByTimeAsync(0);
      expect(backupOf('id')!.piece!.ribbons[0].steps).toHaveLength(2);
      server.answer = null;
      stop();
      await vi.advanceTimersByTimeAsync(5000);
    }
  });
  it('does nothing where all is saved', async () => {
    const stop = startAutosave();
    leave();
    await vi.advanceTimersByTimeAsync(0);
    expect(server.sent).toHaveLength(0);
    expect(store.size).toBe(0);
    stop();
  });
});

describe('work found in the browser', () => {
  it('is given back as it was', () => {
    const piece = { ...newPiece('Kept'), ribbons: [newRibbon('box', 2, 'Crate')] };
    store.set('maypole-unsaved-id', JSON.stringify({ source: writePiece(piece), basedOn: 12 }));
    expect(backupOf('id')).toMatchObject({ source: writePiece(piece), piece, basedOn: 12, line: null });
    expect(backupOf('another')).toBeNull();
  });
  it.each([
    ['nothing at all', undefined],
    ['no JSON', '{'],
    ['another shape', '7'],
  ])('is passed over where it is %s', (_, text) => {
    if (text !== undefined) store.set('maypole-unsaved-id', text);
    expect(backupOf('id')).toBeNull();
  });
  it('what cannot be read is given as it is, with what is wrong with it', () => {
    store.set('maypole-unsaved-id', JSON.stringify({ source: '{"maypole":"song"}', basedOn: 1 }));
    expect(backupOf('id')).toMatchObject({
      source: '{"maypole":"song"}',
      piece: null,
      trouble: expect.stringContaining('not a Maypole piece'),
    });
  });
  it('a browser without a store loses nothing on the server’s side', async () => {
    vi.stubGlobal('localStorage', {
      getItem: () => {
        throw new Error('denied');
      },
      setItem: () => {
        throw new Error('denied');
      },
      removeItem: () => {
        throw new Error('denied');
      },
    });
    expect(backupOf('id')).toBeNull();
    server.answer = () => Promise.reject(new TypeError('away'));
    edit();
    await saveNow();
    expect(now().save).toBe('offline');
    server.answer = null;
    await vi.advanceTimersByTimeAsync(5000);
    expect(now().save).toBe('saved');
    // And does not send the same again and again.
    const count = server.sent.length;
    await vi.advanceTimersByTimeAsync(60_000);
    expect(server.sent.length).toBe(count);
  });
});

describe('what goes wrong while saving', () => {
  const refusal = () =>
    Response.json(
      { error: 'At scene.cameras[0].values.distance: 2000000 is above the largest Distance.' },
      { status: 422 },
    );
  it('a refused save says so and why, keeps the edits in the browser, and is not sent again unchanged', async () => {
    const stop = startAutosave();
    server.answer = refusal;
    edit();
    await vi.advanceTimersByTimeAsync(800);
    expect(now()).toMatchObject({
      save: 'refused',
      saveTrouble: 'At scene.cameras[0].values.distance: 2000000 is above the largest Distance.',
    });
    expect(backupOf('id')!.piece!.ribbons[0].steps).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(server.sent).toHaveLength(1);
    // The next edit is tried, and clears it.
    server.answer = null;
    edit();
    await vi.advanceTimersByTimeAsync(800);
    expect(now()).toMatchObject({ save: 'saved', saveTrouble: null });
    expect(backupOf('id')).toBeNull();
    stop();
  });
  it('a save of A that fails after B was opened keeps A, and goes on with A', async () => {
    const stop = startAutosave();
    edit();
    let fail!: (e: Error) => void;
    server.answer = () => new Promise<Response>((_, reject) => (fail = reject));
    await vi.advanceTimersByTimeAsync(800);
    now().open('other', { ...newPiece('B'), ribbons: [newRibbon('box', 0, 'Crate')] }, 1);
    server.answer = null;
    fail(new TypeError('away'));
    await vi.advanceTimersByTimeAsync(0);
    expect(backupOf('id')!.piece!.name).toBe('Vane');
    expect(backupOf('other')).toBeNull();
    expect(now()).toMatchObject({ id: 'other', save: 'saved' });
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.sent.at(-1)!.source).toContain('Vane');
    expect(backupOf('id')).toBeNull();
    stop();
  });
  it('says of each version which page it is of and the how manieth; the same one has the same number', async () => {
    const stop = startAutosave();
    edit();
    // It leaves, and the answer is never heard; it comes back, and sends the same again, and then another.
    server.answer = () => new Promise<Response>(() => undefined);
    listeners.get('pagehide')!();
    server.answer = null;
    await saveNow();
    edit();
    await vi.advanceTimersByTimeAsync(3000);
    const [first, again, next] = server.sent.map((s) => s.line);
    expect(again).toEqual(first);
    expect(next).toEqual({ client: first.client, count: first.count + 1 });
    stop();
  });
  it('a real conflict is one', async () => {
    const stop = startAutosave();
    server.answer = () =>
      Response.json(
        { error: 'Changed elsewhere.', head: 9, kept: 10, saved: { by: null, at: '2026-12-01T12:00:00Z' } },
        { status: 409 },
      );
    head = { revision: 9, source: '{"maypole":"piece","name":"Somebody else’s"}' };
    edit();
    await vi.advanceTimersByTimeAsync(800);
    expect(now()).toMatchObject({ save: 'conflict', conflict: { head: 9, kept: 10 } });
    stop();
  });
});
