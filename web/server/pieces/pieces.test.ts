import { randomUUID } from 'node:crypto';
import { randomSource } from '@maypole/core/maths/random';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../data/db';
import {
  createPiece,
  duplicatePiece,
  listPieces,
  loadPiece,
  noteSizes,
  loadRevision,
  loadThumbnail,
  savePiece,
  setDeleted,
  storeGaps,
  storeThumbnail,
} from './pieces';
import { listRevisions } from '../past/revisions';
import { noteHere } from '../http/open-pages';
import { LOCAL } from '../../contract/person';
import { openPages, pieces } from '../data/schema';

// The test command starts a throw-away database and names it here.
const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
const source = (name: string) => writePiece({ ...newPiece(name), ribbons: [newRibbon('torus', 0)] });
const nowhere = '00000000-0000-4000-8000-000000000000';

beforeAll(async () => {
  await db.execute('select 1').catch(() => {
    throw new Error('These tests need a database: run them with ./maypole test unit.');
  });
});
afterAll(() => db.$client.end());

describe('pieces in the database', () => {
  it('come back character for character', async () => {
    const odd = source('Round trip').replace('"fps": 25', '"fps": 2.50e1');
    const { id } = await createPiece(db, odd);
    expect((await loadPiece(db, id)).source).toBe(odd);
  });
  it('are summed up for the shelf, with the number of gaps', async () => {
    const ribbon = newRibbon('box', 0);
    const angle = { motion: 'wave', shape: 'sine', low: 0, high: 9, turns: 1.5, phase: 0 };
    const { id } = await createPiece(
      db,
      writePiece({
        ...newPiece('Gappy'),
        ribbons: [{ ...ribbon, steps: [...ribbon.steps, newStep('twist', { angle })] }],
      }),
    );
    expect((await listPieces(db)).find((p) => p.id === id)).toMatchObject({
      name: 'Gappy',
      frames: 100,
      fps: 25,
      width: 1080,
      height: 1080,
      gaps: 1,
      revision: 1,
      trouble: null,
      thumbnailRevision: null,
      labels: [],
      delivered: false,
      deletedAt: null,
    });
  });
  it('have their size noted where they were saved before it was', async () => {
    const { id } = await createPiece(db, writePiece({ ...newPiece('Old'), format: { width: 640, height: 360 } }));
    await db.update(pieces).set({ width: null, height: null }).where(eq(pieces.id, id));
    const size = async () => (await listPieces(db)).find((p) => p.id === id)!;
    expect(await size()).toMatchObject({ width: null, height: null });
    await noteSizes(db, 10_000);
    expect(await size()).toMatchObject({ width: 640, height: 360 });
  });
  it('keep every save as a revision', async () => {
    const { id } = await createPiece(db, source('First'));
    expect(await savePiece(db, id, { source: source('Second'), basedOn: 1 })).toEqual({ revision: 2 });
    expect(await savePiece(db, id, { source: source('Third'), basedOn: 2 })).toEqual({ revision: 3 });
    expect((await loadPiece(db, id)).source).toBe((await loadRevision(db, id, 3)).source);
    expect((await loadPiece(db, id)).source).toContain('"Third"');
    expect((await listRevisions(db, id)).revisions.map((r) => [r.number, r.basedOn, r.aside])).toEqual([
      [3, 2, false],
      [2, 1, false],
      [1, null, false],
    ]);
    expect((await loadRevision(db, id, 1)).source).toContain('"First"');
  });
  it('are never overwritten by a save that came too late: both versions are kept', async () => {
    const { id } = await createPiece(db, source('Shared'));
    await savePiece(db, id, { source: source('Mine'), basedOn: 1 });
    const answer = await savePiece(db, id, { source: source('Yours'), basedOn: 1 });
    expect(answer).toMatchObject({ head: 2, kept: 3 });
    expect((await loadPiece(db, id)).source).toContain('"Mine"');
    expect((await loadRevision(db, id, 3)).source).toContain('"Yours"');
    // Whoever was late may still go on from the head.
    expect(await savePiece(db, id, { source: source('Yours'), basedOn: 2 })).toEqual({ revision: 4 });
  });
  it('take saves that come at the same moment one after another', async () => {
    const { id } = await createPiece(db, source('Race'));
    const answers = await Promise.all(
      Array.from({ length: 6 }, (_, i) => savePiece(db, id, { source: source(`Racer ${i}`), basedOn: 1 })),
    );
    expect(answers.filter((a) => 'revision' in a)).toHaveLength(1);
    expect(new Set((await listRevisions(db, id)).revisions.map((r) => r.number)).size).toBe(7);
  });
  it('of a newer version are kept untouched and said to be so', async () => {
    const newer = '{"maypole": "piece",  "version": 99, "name": "From tomorrow", "extra": [1,2 ,3]}';
    const { id } = await createPiece(db, newer);
    expect((await loadPiece(db, id)).source).toBe(newer);
    const row = (await listPieces(db)).find((p) => p.id === id)!;
    expect(row).toMatchObject({ name: 'From tomorrow', frames: null, gaps: null });
    expect(row.trouble).toContain('newer Maypole (version 99');
    await expect(duplicatePiece(db, id)).rejects.toThrow('Export it instead');
  });
  it('are refused with the faulty place when they are broken', async () => {
    const bad = source('Bad').replace('"ringRadius": 1', '"ringRadius": -1');
    await expect(createPiece(db, bad)).rejects.toThrow(
      /ribbons\[0\]\.steps\[0\]\.values\.ringRadius: -1 is below the smallest/,
    );
    const { id } = await createPiece(db, source('Good'));
    await expect(savePiece(db, id, { source: bad, basedOn: 1 })).rejects.toThrow('ringRadius');
    expect((await loadPiece(db, id)).revision).toBe(1);
  });
  it('go to the bin and come back', async () => {
    const { id } = await createPiece(db, source('Binned'));
    const has = async (bin: boolean) => (await listPieces(db, bin)).some((p) => p.id === id);
    await setDeleted(db, id, true);
    expect([await has(false), await has(true)]).toEqual([false, true]);
    await setDeleted(db, id, false);
    expect([await has(false), await has(true)]).toEqual([true, false]);
  });
  it('are duplicated under a name of their own', async () => {
    const { id } = await createPiece(db, source('Twin'));
    const names = [];
    for (let i = 0; i < 2; i++) names.push(JSON.parse((await duplicatePiece(db, id)).source).name);
    expect(names).toEqual(['Twin copy', 'Twin copy 2']);
  });
  it('keep a thumbnail with the revision it shows', async () => {
    const { id } = await createPiece(db, source('Pictured'));
    await expect(loadThumbnail(db, id)).rejects.toThrow('no thumbnail yet');
    await storeThumbnail(db, id, 1, Buffer.from([1, 2, 3]));
    expect([...(await loadThumbnail(db, id))]).toEqual([1, 2, 3]);
    expect((await listPieces(db)).find((p) => p.id === id)!.thumbnailRevision).toBe(1);
  });
  it('take what the shapes say of the seam, of the revision that is shown and of no other', async () => {
    const { id } = await createPiece(db, source('Measured'));
    const gaps = async () => (await listPieces(db)).find((p) => p.id === id)!.gaps;
    expect(await gaps()).toBe(0);
    await storeGaps(db, id, 1, 2);
    expect(await gaps()).toBe(2);
    await savePiece(db, id, { source: source('Measured again'), basedOn: 1 });
    // A new revision begins with what its motions say, and an old measurement is passed over.
    expect(await gaps()).toBe(0);
    await storeGaps(db, id, 1, 7);
    expect(await gaps()).toBe(0);
    await expect(storeGaps(db, nowhere, 1, 0)).rejects.toThrow('There is no such piece');
  });
  it('that do not exist are said not to', async () => {
    for (const work of [
      () => loadPiece(db, nowhere),
      () => savePiece(db, nowhere, { source: source('x'), basedOn: 1 }),
      () => setDeleted(db, nowhere, true),
      () => listRevisions(db, nowhere),
      () => storeThumbnail(db, nowhere, 1, Buffer.from([])),
    ])
      await expect(work()).rejects.toThrow('There is no such piece');
    const { id } = await createPiece(db, source('Short'));
    await expect(loadRevision(db, id, 9)).rejects.toThrow('no revision 9');
  });
});

describe('what one page sends', () => {
  const client = () => randomUUID();
  const send = (id: string, name: string, basedOn: number, page: string, count: number) =>
    savePiece(db, id, { source: source(name), basedOn, line: { client: page, count } });
  const shown = async (id: string) => (JSON.parse((await loadPiece(db, id)).source) as { name: string }).name;

  it('is one line, though no answer is ever heard', async () => {
    const { id } = await createPiece(db, source('Line'));
    const page = client();
    for (let count = 1; count <= 4; count++)
      expect(await send(id, `Line ${count}`, 1, page, count)).toEqual({ revision: count + 1 });
    expect(await shown(id)).toBe('Line 4');
  });
  it('whatever arrives late, twice or in another order, the newest is shown and nobody else is told of', async () => {
    const random = randomSource(11);
    for (let round = 0; round < 12; round++) {
      const { id } = await createPiece(db, source('Order'));
      const page = client();
      // Each of six versions is sent once to three times, in any order.
      const sent = [1, 2, 3, 4, 5, 6]
        .flatMap((count) => Array.from({ length: 1 + Math.floor(3 * random()) }, () => count))
        .map((count) => ({ count, at: random() }))
        .sort((a, b) => a.at - b.at);
      for (const { count } of sent)
        expect(await send(id, `Version ${count}`, 1, page, count)).not.toHaveProperty('error');
      expect(await shown(id)).toBe('Version 6');
      const { revisions } = await listRevisions(db, id);
      expect(revisions.some((r) => r.aside)).toBe(false);
    }
  });
  it('all at once, too', async () => {
    const { id } = await createPiece(db, source('Once'));
    const page = client();
    await Promise.all([1, 2, 3, 4, 5].map((count) => send(id, `At once ${count}`, 1, page, count)));
    expect(await shown(id)).toBe('At once 5');
    expect((await listRevisions(db, id)).revisions.some((r) => r.aside)).toBe(false);
  });
  it('meets what somebody else has saved since, once, however often it is sent', async () => {
    const { id } = await createPiece(db, source('Two'));
    const [mine, theirs] = [client(), client()];
    expect(await send(id, 'Mine 1', 1, mine, 1)).toEqual({ revision: 2 });
    expect(await send(id, 'Theirs', 2, theirs, 1)).toEqual({ revision: 3 });
    const late = await send(id, 'Mine 2', 1, mine, 2);
    expect(late).toMatchObject({ head: 3, kept: 4, saved: { by: null, at: expect.any(String) } });
    expect(await send(id, 'Mine 2', 1, mine, 2)).toMatchObject({ head: 3, kept: 4 });
    expect(await shown(id)).toBe('Theirs');
    // It goes on from the other one.
    expect(await send(id, 'Mine 3', 3, mine, 3)).toEqual({ revision: 5 });
  });
});

describe('who has a piece open', () => {
  const page = (browser: string) => ({ client: randomUUID(), browser });
  const mara = { id: 'mara-0001', name: 'Mara', role: 'edit' } as const;
  it('is told to each of the others, by name or as another browser, until they leave or say nothing', async () => {
    const { id } = await createPiece(db, source('Open'));
    const [here, there] = [randomUUID(), randomUUID()];
    const [one, tab, two, her] = [page(here), page(here), page(there), page(there)];
    expect((await noteHere(db, id, one, LOCAL)).others).toEqual([]);
    await noteHere(db, id, tab, LOCAL);
    await noteHere(db, id, two, LOCAL);
    await noteHere(db, id, her, mara);
    expect((await noteHere(db, id, one, LOCAL)).others).toHaveLength(3);
    expect((await noteHere(db, id, one, LOCAL)).others).toEqual(
      expect.arrayContaining([
        { name: null, browser: 'this', own: false },
        { name: null, browser: 'other', own: false },
        { name: 'Mara', browser: 'other', own: false },
      ]),
    );
    await noteHere(db, id, { ...her, gone: true }, mara);
    await db
      .update(openPages)
      .set({ seenAt: new Date(Date.now() - 60_000) })
      .where(eq(openPages.client, two.client));
    expect((await noteHere(db, id, one, LOCAL)).others).toEqual([{ name: null, browser: 'this', own: false }]);
  });
  it('and which version is shown, and whether this page saved it', async () => {
    const { id } = await createPiece(db, source('Shown'));
    const [one, two] = [page(randomUUID()), page(randomUUID())];
    await savePiece(db, id, { source: source('Shown 2'), basedOn: 1, line: { client: one.client, count: 1 } });
    expect((await noteHere(db, id, one, LOCAL)).head).toMatchObject({ revision: 2, own: true });
    expect((await noteHere(db, id, two, LOCAL)).head).toMatchObject({ revision: 2, own: false, by: null });
    await expect(noteHere(db, nowhere, one, LOCAL)).rejects.toThrow('no such piece');
  });
});
