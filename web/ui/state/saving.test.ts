import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addStep } from './actions';
import { saveNow, startAutosave, unsavedWork } from './saving';
import { useEditor } from './store';

const now = () => useEditor.getState();
const edit = () => addStep(now().piece.ribbons[0].id, 'smooth');
const stepsOf = (source: string) => (JSON.parse(source) as { ribbons: { steps: unknown[] }[] }).ribbons[0].steps.length;

/** A server that answers with the next revision, or as it is told; and what it was sent. */
const server = { sent: [] as { basedOn: number; source: string; keepalive: boolean }[], answer: null as null | (() => Response | Promise<Response>) };
const listeners = new Map<string, () => void>();
let store: Map<string, string>;

beforeEach(() => {
  vi.useFakeTimers();
  store = new Map();
  server.sent.length = 0;
  server.answer = null;
  listeners.clear();
  vi.stubGlobal('localStorage', { getItem: (k: string) => store.get(k) ?? null, setItem: (k: string, v: string) => store.set(k, v), removeItem: (k: string) => store.delete(k) });
  vi.stubGlobal('window', { addEventListener: (k: string, f: () => void) => listeners.set(k, f), removeEventListener: (k: string) => listeners.delete(k) });
  vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
    server.sent.push({ ...(JSON.parse(init.body as string) as { basedOn: number; source: string }), keepalive: init.keepalive === true });
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
});

describe('leaving the page', () => {
  const leave = () => listeners.get('pagehide')!();
  it('keeps unsent work in the browser first, and lets it go once the server has it', async () => {
    const stop = startAutosave();
    edit();
    let arrived!: (r: Response) => void;
    server.answer = () => new Promise<Response>((r) => (arrived = r));
    leave();
    expect(unsavedWork('id')).toMatchObject({ basedOn: 4 });
    expect(unsavedWork('id')!.piece.ribbons[0].steps).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(0);
    expect(server.sent[0]).toMatchObject({ basedOn: 4, keepalive: true });
    arrived(Response.json({ revision: 5 }));
    await vi.advanceTimersByTimeAsync(0);
    expect(unsavedWork('id')).toBeNull();
    server.answer = null;
    stop();
    await vi.advanceTimersByTimeAsync(0);
  });
  it('keeps it where the last word did not arrive, or met another edit', async () => {
    for (const answer of [() => Promise.reject(new TypeError('gone')), () => Response.json({ error: 'Changed elsewhere.', head: 9, kept: 10 }, { status: 409 })]) {
      now().open('id', { ...newPiece('Vane'), ribbons: [newRibbon('torus', 0, 'Ring')] }, 4);
      const stop = startAutosave();
      edit();
      server.answer = answer;
      leave();
      await vi.advanceTimersByTimeAsync(0);
      expect(unsavedWork('id')!.piece.ribbons[0].steps).toHaveLength(2);
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
    expect(unsavedWork('id')).toEqual({ piece, basedOn: 12 });
    expect(unsavedWork('another')).toBeNull();
  });
  it.each([['nothing at all', undefined], ['no JSON', '{'], ['no piece', JSON.stringify({ source: '{"maypole":"song"}', basedOn: 1 })], ['another shape', '7']])('is passed over where it is %s', (_, text) => {
    if (text !== undefined) store.set('maypole-unsaved-id', text);
    expect(unsavedWork('id')).toBeNull();
  });
  it('a browser without a store loses nothing on the server’s side', async () => {
    vi.stubGlobal('localStorage', { getItem: () => { throw new Error('denied'); }, setItem: () => { throw new Error('denied'); }, removeItem: () => undefined });
    expect(unsavedWork('id')).toBeNull();
    server.answer = () => Promise.reject(new TypeError('away'));
    edit();
    await saveNow();
    expect(now().save).toBe('offline');
    server.answer = null;
    await vi.advanceTimersByTimeAsync(5000);
    expect(now().save).toBe('saved');
  });
});
