import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from './db';
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
import { listRevisions } from './past/revisions';
import { pieces } from './schema';

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
    expect(await savePiece(db, id, source('Second'), 1)).toEqual({ revision: 2 });
    expect(await savePiece(db, id, source('Third'), 2)).toEqual({ revision: 3 });
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
    await savePiece(db, id, source('Mine'), 1);
    const answer = await savePiece(db, id, source('Yours'), 1);
    expect(answer).toMatchObject({ head: 2, kept: 3 });
    expect((await loadPiece(db, id)).source).toContain('"Mine"');
    expect((await loadRevision(db, id, 3)).source).toContain('"Yours"');
    // Whoever was late may still go on from the head.
    expect(await savePiece(db, id, source('Yours'), 2)).toEqual({ revision: 4 });
  });
  it('take saves that come at the same moment one after another', async () => {
    const { id } = await createPiece(db, source('Race'));
    const answers = await Promise.all(Array.from({ length: 6 }, (_, i) => savePiece(db, id, source(`Racer ${i}`), 1)));
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
    await expect(savePiece(db, id, bad, 1)).rejects.toThrow('ringRadius');
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
    await savePiece(db, id, source('Measured again'), 1);
    // A new revision begins with what its motions say, and an old measurement is passed over.
    expect(await gaps()).toBe(0);
    await storeGaps(db, id, 1, 7);
    expect(await gaps()).toBe(0);
    await expect(storeGaps(db, nowhere, 1, 0)).rejects.toThrow('There is no such piece');
  });
  it('that do not exist are said not to', async () => {
    for (const work of [
      () => loadPiece(db, nowhere),
      () => savePiece(db, nowhere, source('x'), 1),
      () => setDeleted(db, nowhere, true),
      () => listRevisions(db, nowhere),
      () => storeThumbnail(db, nowhere, 1, Buffer.from([])),
    ])
      await expect(work()).rejects.toThrow('There is no such piece');
    const { id } = await createPiece(db, source('Short'));
    await expect(loadRevision(db, id, 9)).rejects.toThrow('no revision 9');
  });
});
