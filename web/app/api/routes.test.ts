import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { describe, expect, it } from 'vitest';
import type { PieceSummary, RevisionSummary, StoredPiece } from '@/contract/pieces';
import * as health from './health/route';
import * as list from './pieces/route';
import * as one from './pieces/[id]/route';
import * as duplicate from './pieces/[id]/duplicate/route';
import * as file from './pieces/[id]/file/route';
import * as restore from './pieces/[id]/restore/route';
import * as revisions from './pieces/[id]/revisions/route';
import * as revision from './pieces/[id]/revisions/[number]/route';
import * as seam from './pieces/[id]/seam/route';
import * as thumbnail from './pieces/[id]/thumbnail/route';

// Run by ./maypole test unit, which names a throw-away database in DATABASE_URL.
const source = (name: string) => writePiece({ ...newPiece(name), ribbons: [newRibbon('plane', 0)] });
const at = (id: string) => ({ params: Promise.resolve({ id }) });
const ask = (method: string, body?: unknown, query = '') =>
  new Request(`http://127.0.0.1/api/x${query}`, {
    method,
    ...(body === undefined ? {} : { body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body) }),
  });
const nowhere = '00000000-0000-4000-8000-000000000000';

async function made(name: string): Promise<StoredPiece> {
  const response = await list.POST(ask('POST', { source: source(name) }), undefined);
  expect(response.status).toBe(201);
  return response.json() as Promise<StoredPiece>;
}
const shelf = async (query = '') =>
  ((await (await list.GET(ask('GET', undefined, query), undefined)).json()) as { pieces: PieceSummary[] }).pieces;
const error = async (response: Response) => ((await response.json()) as { error: string }).error;

describe('the routes', () => {
  it('health answers when the database does', async () => {
    expect(await (await health.GET(ask('GET'), undefined)).json()).toEqual({ ok: true });
  });
  it('a piece is made, listed, read, saved and given out', async () => {
    const { id, revision: first } = await made('Routes');
    expect(first).toBe(1);
    expect((await shelf()).map((p) => p.id)).toContain(id);
    const saved = await one.PUT(ask('PUT', { source: source('Routes, again'), basedOn: 1 }), at(id));
    expect([saved.status, await saved.json()]).toEqual([200, { revision: 2 }]);
    const answer = await one.GET(ask('GET'), at(id));
    expect(answer.headers.get('cache-control')).toBe('no-store');
    const read = (await answer.json()) as StoredPiece;
    expect(read.revision).toBe(2);
    const given = await file.GET(ask('GET'), at(id));
    expect(given.headers.get('content-disposition')).toBe('attachment; filename="routes-again.maypole.json"');
    expect(await given.text()).toBe(read.source);
  });
  it('a take is kept beside under its name, and a save gets one or loses it', async () => {
    const { id, source: own } = await made('Taken');
    const taken = source('Taken, otherwise');
    const kept = await revisions.POST(ask('POST', { source: taken, mark: ' Evening ' }), at(id));
    expect([kept.status, await kept.json()]).toEqual([201, { revision: 2 }]);
    const list = async () =>
      ((await (await revisions.GET(ask('GET'), at(id))).json()) as { revisions: RevisionSummary[] }).revisions.map(
        ({ number, aside, mark }) => ({ number, aside, mark }),
      );
    expect(await list()).toEqual([
      { number: 2, aside: true, mark: 'Evening' },
      { number: 1, aside: false, mark: null },
    ]);
    // What is shown stays what it was, and is saved on as before.
    const shown = (await (await one.GET(ask('GET'), at(id))).json()) as StoredPiece;
    expect([shown.revision, shown.source]).toEqual([1, own]);
    const first = { params: Promise.resolve({ id, number: '1' }) };
    expect((await revision.PUT(ask('PUT', { mark: 'Calm' }), first)).status).toBe(204);
    expect((await list())[1].mark).toBe('Calm');
    expect((await revision.PUT(ask('PUT', { mark: null }), first)).status).toBe(204);
    expect((await list())[1].mark).toBeNull();
    const nameless = await revisions.POST(ask('POST', { source: taken, mark: ' ' }), at(id));
    expect([nameless.status, await error(nameless)]).toEqual([400, 'A name is needed.']);
    const none = await revision.PUT(ask('PUT', { mark: 'X' }), { params: Promise.resolve({ id, number: '9' }) });
    expect(none.status).toBe(404);
    expect((await revisions.POST(ask('POST', { source: '{}', mark: 'X' }), at(id))).status).toBe(422);
  });

  it('a late save gets 409 with both numbers; all revisions can be read', async () => {
    const { id } = await made('Late');
    await one.PUT(ask('PUT', { source: source('One'), basedOn: 1 }), at(id));
    const late = await one.PUT(ask('PUT', { source: source('Two'), basedOn: 1 }), at(id));
    expect([late.status, await late.json()]).toEqual([409, expect.objectContaining({ head: 2, kept: 3 })]);
    const { revisions: all } = (await (await revisions.GET(ask('GET'), at(id))).json()) as {
      revisions: RevisionSummary[];
    };
    expect(all.map((r) => r.number)).toEqual([3, 2, 1]);
    const third = await revision.GET(ask('GET'), { params: Promise.resolve({ id, number: '3' }) });
    expect(((await third.json()) as StoredPiece).source).toContain('"Two"');
    const bad = await revision.GET(ask('GET'), { params: Promise.resolve({ id, number: 'x' }) });
    expect(bad.status).toBe(400);
  });
  it('the bin takes and gives back; copies have names of their own', async () => {
    const { id } = await made('Here and there');
    expect((await one.DELETE(ask('DELETE'), at(id))).status).toBe(204);
    expect((await shelf()).some((p) => p.id === id)).toBe(false);
    expect((await shelf('?bin=1')).some((p) => p.id === id)).toBe(true);
    expect((await restore.POST(ask('POST'), at(id))).status).toBe(204);
    const copy = (await (await duplicate.POST(ask('POST'), at(id))).json()) as StoredPiece;
    expect(JSON.parse(copy.source).name).toBe('Here and there copy');
  });
  it('what the shapes say of the seam is shown on the shelf, and only whole numbers of gaps are taken', async () => {
    const { id } = await made('Seen');
    expect((await seam.PUT(ask('PUT', { revision: 1, gaps: 3 }), at(id))).status).toBe(204);
    expect((await shelf()).find((p) => p.id === id)!.gaps).toBe(3);
    for (const [body, word] of [
      [{ revision: 1, gaps: -1 }, 'gaps'],
      [{ revision: 0.5, gaps: 1 }, 'revision'],
      [{ gaps: 1 }, 'revision'],
    ] as const) {
      const refused = await seam.PUT(ask('PUT', body), at(id));
      expect(refused.status).toBe(400);
      expect(await error(refused)).toContain(word);
    }
    expect((await seam.PUT(ask('PUT', { revision: 1, gaps: 1 }), at(nowhere))).status).toBe(404);
    expect((await shelf()).find((p) => p.id === id)!.gaps).toBe(3);
  });
  it('thumbnails are WebP pictures and nothing else', async () => {
    const { id } = await made('Pictured');
    const webp = Buffer.concat([Buffer.from('RIFF'), Buffer.alloc(4), Buffer.from('WEBP')]);
    expect((await thumbnail.PUT(ask('PUT', webp, '?revision=1'), at(id))).status).toBe(204);
    const back = await thumbnail.GET(ask('GET'), at(id));
    expect(back.headers.get('content-type')).toBe('image/webp');
    expect(Buffer.from(await back.arrayBuffer()).equals(webp)).toBe(true);
    expect((await thumbnail.PUT(ask('PUT', Buffer.from('<svg onload=x>'), '?revision=1'), at(id))).status).toBe(415);
    expect((await thumbnail.PUT(ask('PUT', webp), at(id))).status).toBe(400);
    const later = await thumbnail.PUT(ask('PUT', webp, '?revision=2'), at(id));
    expect([later.status, await error(later)]).toEqual([404, 'There is no revision 2 of this piece.']);
    expect((await thumbnail.PUT(ask('PUT', webp, '?revision=1'), at(nowhere))).status).toBe(404);
  });
  it('what is not understood is refused in words, with the right status', async () => {
    const { id } = await made('Strict');
    const cases: [Promise<Response>, number, RegExp][] = [
      [one.GET(ask('GET'), at('17')), 400, /not the address of a piece/],
      [one.GET(ask('GET'), at(nowhere)), 404, /no such piece/],
      [one.PUT(ask('PUT', { source: source('x') }), at(id)), 400, /basedOn/],
      [one.PUT(ask('PUT', { source: source('x'), basedOn: 1, extra: 1 }), at(id)), 400, /extra/],
      [one.PUT(ask('PUT', { source: '{"maypole":"piece","version":1}', basedOn: 1 }), at(id)), 422, /At name: /],
      [list.POST(ask('POST', { source: 7 }), undefined), 400, /sent as text/],
      [list.POST(ask('POST', { source: 'no json' }), undefined), 422, /not JSON/],
      [duplicate.POST(ask('POST'), at(nowhere)), 404, /no such piece/],
      [restore.POST(ask('POST'), at(nowhere)), 404, /no such piece/],
      [file.GET(ask('GET'), at(nowhere)), 404, /no such piece/],
      [thumbnail.GET(ask('GET'), at(id)), 404, /no thumbnail yet/],
    ];
    for (const [work, status, words] of cases) {
      const response = await work;
      expect(response.status).toBe(status);
      expect(await error(response)).toMatch(words);
    }
  });
});
