import { writePly } from '@maypole/core/files/ply';
import { form } from '@maypole/core/fixtures/forms';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { and, eq } from 'drizzle-orm';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { keepAsset, loadAsset } from '../pieces/assets';
import { BIN_DAYS } from '../../contract/pieces';
import { connect } from '../data/db';
import { listRevisions, setMark } from '../past/revisions';
import { createPiece, keepTake, loadPiece, savePiece, setDeleted } from '../pieces/pieces';
import { assertRoomForFile, assertRoomForPiece, roomUsed } from './room';
import { assets, pieces, revisions } from '../data/schema';
import { keepTidy, LOOSE_FILE_DAYS } from './upkeep';

const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());
const DAY = 86_400_000;
const source = (name: string) => writePiece({ ...newPiece(name), ribbons: [newRibbon('plane', 0)] });

describe('what is kept no longer', () => {
  it('the bin gives a piece away after its days, and not before', async () => {
    const [kept, gone, shown] = await Promise.all(['Kept', 'Gone', 'Shown'].map((n) => createPiece(db, source(n))));
    for (const { id } of [kept, gone]) await setDeleted(db, id, true);
    const at = (days: number) => new Date(Date.now() - days * DAY);
    await db
      .update(pieces)
      .set({ deletedAt: at(BIN_DAYS - 0.01) })
      .where(eq(pieces.id, kept.id));
    await db
      .update(pieces)
      .set({ deletedAt: at(BIN_DAYS + 0.01) })
      .where(eq(pieces.id, gone.id));
    expect((await keepTidy(db)).pieces).toBeGreaterThanOrEqual(1);
    await expect(loadPiece(db, gone.id)).rejects.toMatchObject({ status: 404 });
    for (const { id } of [kept, shown]) expect((await loadPiece(db, id)).id).toBe(id);
  });

  it('saves thin out by age: all of two days, the last of an hour up to a month, the last of a day before', async () => {
    const { id } = await createPiece(db, source('Thin'));
    for (let i = 0; i < 40; i++) await savePiece(db, id, { source: source(`Thin ${i}`), basedOn: i + 1 });
    // One of them has a name; a save that came too late is kept aside, and so is a take.
    await setMark(db, id, 9, 'Before the storm');
    await keepTake(db, id, { source: source('Take'), mark: 'Take one' });
    await savePiece(db, id, { source: source('Aside'), basedOn: 3 });
    const now = new Date('2026-06-15T12:00:00Z');
    const when = (number: number): Date => {
      // 1…20: every ten minutes of one day three months ago; 21…32: of two hours a week ago; then this morning.
      if (number <= 20) return new Date(Date.parse('2026-03-10T08:00:00Z') + number * 600_000);
      if (number <= 32) return new Date(Date.parse('2026-06-08T08:00:00Z') + (number - 21) * 600_000);
      return new Date(Date.parse('2026-06-15T09:00:00Z') + number * 60_000);
    };
    for (const { number, aside } of (await listRevisions(db, id)).revisions)
      await db
        .update(revisions)
        .set({ createdAt: aside ? new Date('2026-01-01T00:00:00Z') : when(number) })
        .where(and(eq(revisions.pieceId, id), eq(revisions.number, number)));
    await keepTidy(db, now);
    const left = (await listRevisions(db, id)).revisions.map((r) => r.number).sort((a, b) => a - b);
    expect(left.filter((n) => n <= 20)).toEqual([9, 20]);
    expect(left.filter((n) => n > 20 && n <= 32)).toEqual([26, 32]);
    expect(left.filter((n) => n > 32)).toEqual([33, 34, 35, 36, 37, 38, 39, 40, 41, 42, 43]);
    expect((await loadPiece(db, id)).source).toContain('Thin 39');
  });

  it('the save that is shown stays, however old, and thinning twice is thinning once', async () => {
    const { id } = await createPiece(db, source('Old'));
    await savePiece(db, id, { source: source('Old, again'), basedOn: 1 });
    await db
      .update(revisions)
      .set({ createdAt: new Date('2026-01-01T10:00:00Z') })
      .where(eq(revisions.pieceId, id));
    await keepTidy(db);
    const { revisions: left } = await listRevisions(db, id);
    await keepTidy(db);
    expect((await listRevisions(db, id)).revisions).toEqual(left);
    expect(left[0].number).toBe(2);
    expect((await loadPiece(db, id)).revision).toBe(2);
  });

  it('files that nothing names go after their days; one that any save names stays', async () => {
    const [loose, named, fresh] = await Promise.all(
      [4, 5, 6].map((frequency) => keepAsset(db, `f${frequency}.ply`, writePly(form('geodesic', { frequency })))),
    );
    await createPiece(
      db,
      writePiece({
        ...newPiece('Names a file'),
        ribbons: [{ ...newRibbon('imported', 0), steps: [newStep('imported', { file: named.fingerprint })] }],
      }),
    );
    const old = new Date(Date.now() - (LOOSE_FILE_DAYS + 1) * DAY);
    for (const { fingerprint } of [loose, named])
      await db.update(assets).set({ takenAt: old }).where(eq(assets.fingerprint, fingerprint));
    await keepTidy(db);
    await expect(loadAsset(db, loose.fingerprint)).rejects.toMatchObject({ status: 404 });
    for (const { fingerprint } of [named, fresh])
      expect((await loadAsset(db, fingerprint)).bytes.length).toBeGreaterThan(0);
    // Taken in anew, it is fresh.
    await db.update(assets).set({ takenAt: old }).where(eq(assets.fingerprint, fresh.fingerprint));
    await keepAsset(db, 'again.ply', writePly(form('geodesic', { frequency: 6 })));
    await keepTidy(db);
    expect((await loadAsset(db, fresh.fingerprint)).name).toBe('again.ply');
  });
});

describe('room', () => {
  const names = ['MAYPOLE_MOST_PIECES', 'MAYPOLE_MOST_PIECES_OF_ONE', 'MAYPOLE_MOST_FILE_GIGABYTES_OF_ONE'];
  afterEach(() => {
    for (const name of names) delete process.env[name];
  });
  it('is counted', async () => {
    const before = await roomUsed(db);
    await createPiece(db, source('Counted'));
    const after = await roomUsed(db);
    // Other tests make some at the same time.
    expect(after.pieces).toBeGreaterThanOrEqual(before.pieces + 1);
    expect(after.revisions).toBeGreaterThanOrEqual(before.revisions + 1);
    expect(after.bytes).toBeGreaterThan(1_000_000);
  });
  it('of all and of one is bounded, and the refusal says by what', async () => {
    await createPiece(db, source('Of one'), 'somebody');
    await assertRoomForPiece(db, 'somebody');
    process.env.MAYPOLE_MOST_PIECES_OF_ONE = '1';
    await expect(createPiece(db, source('One more'), 'somebody')).rejects.toMatchObject({
      status: 507,
      message: expect.stringContaining('MAYPOLE_MOST_PIECES_OF_ONE') as string,
    });
    // Somebody else, and whoever sits at this machine, may.
    await assertRoomForPiece(db, 'another');
    await assertRoomForPiece(db, 'local');
    process.env.MAYPOLE_MOST_PIECES = '1';
    await expect(assertRoomForPiece(db, 'local')).rejects.toThrow('MAYPOLE_MOST_PIECES ');
    process.env.MAYPOLE_MOST_FILE_GIGABYTES_OF_ONE = '0.001';
    await assertRoomForFile(db, 'somebody', 900_000);
    await expect(assertRoomForFile(db, 'somebody', 1_100_000)).rejects.toMatchObject({ status: 507 });
  });
});
