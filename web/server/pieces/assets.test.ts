import { writePgm } from '@maypole/core/files/pgm';
import { readPly, writePly } from '@maypole/core/files/ply';
import { form } from '@maypole/core/fixtures/forms';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { readBundle } from '@maypole/core/piece/bundle';
import { writePiece } from '@maypole/core/piece/read';
import { afterAll, describe, expect, it } from 'vitest';
import { keepAsset, keepAssets, loadAsset } from './assets';
import { carried } from './bundle';
import { connect } from '../data/db';

// The test command starts a throw-away database and names it here.
const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

/** Parts of a text, together. */
async function text(parts: AsyncIterable<string>): Promise<string> {
  let all = '';
  for await (const part of parts) all += part;
  return all;
}

const obj = new TextEncoder().encode('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n');

describe('files beside pieces', () => {
  it('shapes are kept as PLY under the fingerprint of their bytes, the same file once', async () => {
    const kept = await keepAsset(db, 'vane.obj', obj);
    expect(kept).toMatchObject({ name: 'vane.obj', words: '3 points, 1 faces' });
    expect((await keepAsset(db, 'again.obj', obj)).fingerprint).toBe(kept.fingerprint);
    const { name, bytes } = await loadAsset(db, kept.fingerprint);
    // Whoever chooses a file sees the name that it has now.
    expect(name).toBe('again.obj');
    expect(readPly(bytes).connectivity.vertexCount).toBe(3);
  });
  it('pictures are kept as they come, and what cannot be read is refused in words', async () => {
    expect((await keepAsset(db, 'cloud.pgm', writePgm(3, 2, [0, 0, 0, 1, 1, 1]))).words).toBe('3 × 2 pixels');
    await expect(keepAsset(db, 'broken.obj', new TextEncoder().encode('f 1 2 3'))).rejects.toThrow('names point 0');
    await expect(keepAsset(db, 'x.doc', obj)).rejects.toThrow('use a file that ends in');
    await expect(loadAsset(db, '0'.repeat(64))).rejects.toThrow('Choose it again');
  });
  it('go out with the piece that names them, and come in only if they are what they say', async () => {
    const { fingerprint } = await keepAsset(db, 'ball.ply', writePly(form('geodesic', { frequency: 3 })));
    const piece = {
      ...newPiece('Parcel'),
      ribbons: [{ ...newRibbon('imported', 0), steps: [newStep('imported', { file: fingerprint })] }],
    };
    const source = writePiece(piece);
    const parcel = readBundle(await text(carried(db, source)));
    expect(parcel.source).toBe(source);
    expect(Object.keys(parcel.assets!)).toEqual([fingerprint]);
    await keepAssets(db, parcel.assets!);
    const alone = writePiece(newPiece('Nothing'));
    expect(await text(carried(db, alone))).toBe(alone);
    const other = { [fingerprint]: { name: 'ball.ply', data: Buffer.from(writePly(form('box'))).toString('base64') } };
    await expect(keepAssets(db, other)).rejects.toThrow('not those it was saved with');
    await expect(keepAssets(db, { [fingerprint]: { name: 'ball.ply', data: 'AAAA' } })).rejects.toThrow(
      'cannot be read',
    );
  });
});
