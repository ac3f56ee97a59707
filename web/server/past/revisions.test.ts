import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { and, eq, isNotNull } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { connect } from '../data/db';
import { takeBody } from '../../contract/pieces';
import { createPiece, keepTake, loadPiece, loadRevision, savePiece } from '../pieces/pieces';
import { revisions } from '../data/schema';
import { CHAIN, dropRevisions, listRevisions } from './revisions';

const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

const ribbons = Array.from({ length: 30 }, () => newRibbon('sphere', 0));
const source = (name: string) => writePiece({ ...newPiece(name), ribbons });

/** A piece with many saves; the texts by number. */
async function pieceWith(saves: number) {
  const texts = ['', ...Array.from({ length: saves }, (_, i) => source(`Save ${i + 1}`))];
  const { id } = await createPiece(db, texts[1]);
  for (let i = 2; i <= saves; i++) await savePiece(db, id, { source: texts[i], basedOn: i - 1 });
  return { id, texts };
}

const whole = async (id: string) =>
  (
    await db
      .select({ number: revisions.number })
      .from(revisions)
      .where(and(eq(revisions.pieceId, id), isNotNull(revisions.source)))
      .orderBy(revisions.number)
  ).map((r) => r.number);

describe('the past of a piece', () => {
  it('is kept as differences with whole documents between, and every save reads to the letter', async () => {
    const { id, texts } = await pieceWith(CHAIN + 12);
    expect(await whole(id)).toEqual([1, CHAIN + 1]);
    for (let n = 1; n < texts.length; n++) expect((await loadRevision(db, id, n)).source).toBe(texts[n]);
    const { bytes, revisions: list } = await listRevisions(db, id);
    expect(list.length).toBe(CHAIN + 12);
    expect(bytes).toBeLessThan((CHAIN + 12) * 200 + 2 * texts[1].length);
  });

  it('a sheet of variations is kept with the version that it is of, and stays with it', async () => {
    const sheet = {
      chosen: ['a/height', 'b/seed'],
      locked: [],
      reach: 0.4,
      count: 12,
      seed: 7,
      way: { type: 'mix', a: source('A'), b: source('B') },
      throws: [0, 3, 4],
    } as const;
    const { id, texts } = await pieceWith(3);
    const given = takeBody.parse({ source: texts[2], mark: 'Twelve', sheet });
    const { revision } = await keepTake(db, id, given);
    await keepTake(db, id, { source: texts[1], mark: 'A take' });
    await dropRevisions(db, id, [2, 3]);
    const { revisions: list } = await listRevisions(db, id);
    expect(list.map((r) => [r.mark, r.sheet])).toEqual([
      ['A take', false],
      ['Twelve', true],
      [null, false],
    ]);
    expect(await loadRevision(db, id, revision)).toMatchObject({ source: texts[2], sheet });
    expect((await loadRevision(db, id, 1)).sheet).toBeNull();
    const wrong = takeBody.safeParse({ source: texts[2], mark: 'Too many', sheet: { ...sheet, count: 61 } });
    expect(wrong.error?.issues[0].path).toEqual(['sheet', 'count']);
  });

  it('what is quite another document is kept whole', async () => {
    const { id } = await createPiece(db, writePiece(newPiece('Little in common with it')));
    const other = source('Thirty forms');
    await savePiece(db, id, { source: other, basedOn: 1 });
    expect(await whole(id)).toEqual([1, 2]);
    expect((await loadPiece(db, id)).source).toBe(other);
  });

  it.each([
    ['the whole one at the beginning', [1]],
    ['some in a row', [4, 5, 6]],
    ['every other one', Array.from({ length: 70 }, (_, i) => 2 * i + 1)],
    ['the second whole one and what leads to it', [CHAIN - 1, CHAIN, CHAIN + 1, CHAIN + 2]],
    ['all but two', Array.from({ length: CHAIN + 10 }, (_, i) => i + 1).filter((n) => n !== 3 && n !== CHAIN + 5)],
  ])('%s taken away: what stays reads as before', async (_, gone) => {
    const { id, texts } = await pieceWith(CHAIN + 10);
    await dropRevisions(db, id, gone);
    const left = (await listRevisions(db, id)).revisions.map((r) => r.number).sort((a, b) => a - b);
    expect(left).toEqual(Array.from({ length: CHAIN + 10 }, (_, i) => i + 1).filter((n) => !gone.includes(n)));
    for (const n of left) expect((await loadRevision(db, id, n)).source).toBe(texts[n]);
    for (const n of gone.slice(0, 3)) await expect(loadRevision(db, id, n)).rejects.toThrow(`no revision ${n}`);
  });
});
