import { newPiece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { afterAll, expect, it } from 'vitest';
import { MOST_LABELS, severalBody } from '../../contract/pieces';
import { connect } from '../data/db';
import { createPiece, listPieces } from './pieces';
import { editSeveral } from './several';

const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

const make = async (name: string) => (await createPiece(db, writePiece(newPiece(name)))).id;
const found = async (id: string, bin = false) => (await listPieces(db, bin)).find((p) => p.id === id);

it('labels several pieces at once, in the order of the alphabet, and once each', async () => {
  const ids = [await make('One'), await make('Two')];
  for (const label of ['wall', 'blue', 'wall']) await editSeveral(db, { does: 'label', label, ids });
  await editSeveral(db, { does: 'label', label: 'alone', ids: [ids[0], ids[0]] });
  expect((await found(ids[0]))!.labels).toEqual(['alone', 'blue', 'wall']);
  expect((await found(ids[1]))!.labels).toEqual(['blue', 'wall']);
  await editSeveral(db, { does: 'unlabel', label: 'blue', ids });
  expect((await found(ids[1]))!.labels).toEqual(['wall']);
});

it('puts several into the bin with the moment, and takes them out', async () => {
  const ids = [await make('Three'), await make('Four')];
  await editSeveral(db, { does: 'bin', ids });
  expect(await found(ids[0])).toBeUndefined();
  const binned = await found(ids[1], true);
  expect(Date.now() - Date.parse(binned!.deletedAt!)).toBeLessThan(60_000);
  await editSeveral(db, { does: 'restore', ids });
  expect((await found(ids[0]))!.deletedAt).toBeNull();
});

it('does all or nothing', async () => {
  const id = await make('Five');
  const nowhere = '00000000-0000-4000-8000-000000000000';
  await expect(editSeveral(db, { does: 'bin', ids: [id, nowhere] })).rejects.toThrow('1 of these pieces');
  expect(await found(id)).toBeDefined();
  for (let i = 0; i < MOST_LABELS; i++) await editSeveral(db, { does: 'label', label: `l${i}`, ids: [id] });
  await expect(editSeveral(db, { does: 'label', label: 'one more', ids: [id] })).rejects.toThrow('24 labels already');
  expect((await found(id))!.labels).toHaveLength(MOST_LABELS);
});

it.each([
  [{ does: 'label', label: ' ', ids: ['00000000-0000-4000-8000-000000000000'] }],
  [{ does: 'label', ids: ['00000000-0000-4000-8000-000000000000'] }],
  [{ does: 'bin', ids: [] }],
  [{ does: 'burn', ids: ['00000000-0000-4000-8000-000000000000'] }],
  [{ does: 'bin', ids: ['one'] }],
])('%j is no request', (body) => expect(severalBody.safeParse(body).success).toBe(false));
