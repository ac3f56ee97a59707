import { afterEach, describe, expect, it, vi } from 'vitest';
import {
  createPiece,
  deletePiece,
  duplicatePiece,
  listPieces,
  loadPiece,
  RequestTrouble,
  restorePiece,
  savePiece,
  storeThumbnail,
} from './api';

const calls: [string, RequestInit | undefined][] = [];
function answer(body: unknown, status = 200): void {
  calls.length = 0;
  vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
    calls.push([path, init]);
    return status === 204
      ? new Response(null, { status })
      : typeof body === 'string'
        ? new Response(body, { status })
        : Response.json(body, { status });
  });
}
afterEach(() => vi.unstubAllGlobals());

describe('asking the server', () => {
  it('uses one address and method for each thing', async () => {
    answer({ pieces: [] });
    expect(await listPieces()).toEqual([]);
    await listPieces(true);
    answer({ id: 'x', revision: 1, source: '{}' }, 201);
    await createPiece('{}');
    expect(calls[0]).toEqual(['/api/pieces', expect.objectContaining({ method: 'POST', body: '{"source":"{}"}' })]);
    const work: [() => Promise<unknown>, string, string | undefined][] = [
      [() => loadPiece('a'), '/api/pieces/a', undefined],
      [() => duplicatePiece('a'), '/api/pieces/a/duplicate', 'POST'],
    ];
    for (const [run, path, method] of work) {
      answer({});
      await run();
      expect(calls.map(([p, i]) => [p, i?.method])).toEqual([[path, method]]);
    }
    const silent: [() => Promise<unknown>, string, string][] = [
      [() => deletePiece('a'), '/api/pieces/a', 'DELETE'],
      [() => restorePiece('a'), '/api/pieces/a/restore', 'POST'],
      [() => storeThumbnail('a', 4, new Blob(['x'])), '/api/pieces/a/thumbnail?revision=4', 'PUT'],
    ];
    for (const [run, path, method] of silent) {
      answer(null, 204);
      expect(await run()).toBeUndefined();
      expect(calls.map(([p, i]) => [p, i?.method])).toEqual([[path, method]]);
    }
  });
  it('gives a conflict as an answer, and may outlive its page', async () => {
    answer({ error: 'Changed.', head: 2, kept: 3 }, 409);
    expect(await savePiece('a', '{}', 1, null, true)).toMatchObject({ head: 2, kept: 3 });
    expect(calls[0][1]).toMatchObject({ method: 'PUT', keepalive: true });
  });
  it('passes on what the server says, and says something sensible when it says nothing', async () => {
    answer({ error: 'The ring is too wide.' }, 422);
    await expect(createPiece('{}')).rejects.toThrow('The ring is too wide.');
    answer('<html>', 502);
    await expect(loadPiece('a')).rejects.toThrow('The server answered 502.');
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('down')));
    const trouble = await loadPiece('a').catch((e: unknown) => e);
    expect(trouble).toBeInstanceOf(RequestTrouble);
    expect((trouble as RequestTrouble).status).toBe(0);
    expect((trouble as RequestTrouble).message).toContain('./maypole start');
  });
});
