import { sceneLook } from '@maypole/core/looks/look';
import { newPiece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { afterAll, describe, expect, it } from 'vitest';
import { connect } from '../data/db';
import { keepLook, listLooks, removeLook } from './looks';

// The test command starts a throw-away database and names it here.
const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set; run the tests with ./maypole test, which starts a database.');
const db = connect(url);
afterAll(() => db.$client.end());

describe('looks that are kept', () => {
  it('are listed by their kind, the newest first, character for character, until they are taken away', async () => {
    const source = (name: string) => writePiece(sceneLook(name, 'lights', newPiece()));
    const dawn = source('Dawn');
    const first = await keepLook(db, 'lights', dawn);
    const second = await keepLook(db, 'lights', source('Dusk'));
    const names = async () => (await listLooks(db, 'lights')).map((l) => l.name);
    expect((await names()).slice(0, 2)).toEqual(['Dusk', 'Dawn']);
    expect((await listLooks(db, 'lights')).find((l) => l.id === first.id)!.source).toBe(dawn);
    expect(await listLooks(db, 'camera')).toEqual([]);
    await removeLook(db, second.id);
    expect(await names()).not.toContain('Dusk');
    await expect(removeLook(db, second.id)).rejects.toThrow('not kept any more');
  });
  it('that cannot be read are refused with the reason', async () => {
    await expect(keepLook(db, 'finish', '{"maypole":"piece","version":1}')).rejects.toMatchObject({ status: 422 });
  });
});
