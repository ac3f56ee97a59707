import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { readPiece } from '@maypole/core/piece/read';
import { proveSeam } from '@maypole/core/seam/proof';
import { afterAll, expect, it } from 'vitest';
import { connect } from '../data/db';
import { listRevisions } from '../past/revisions';
import { listPieces, loadPiece, loadRevision } from '../pieces/pieces';
import { fillShelf } from './shelf';

const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

const folder = path.join(import.meta.dirname, '../../../demo');
const names = new Set(
  readdirSync(folder).map((f) => (JSON.parse(readFileSync(path.join(folder, f), 'utf8')) as { name: string }).name),
);

it('the demo shelf is sorted, and one piece has a past worth looking at', async () => {
  const before = new Set((await listPieces(db)).map((p) => p.id));
  await fillShelf(db, path.resolve('demo'));
  // Other tests make pieces of their own meanwhile.
  const shelf = (await listPieces(db)).filter((p) => !before.has(p.id) && names.has(p.name));
  expect(shelf.length).toBeGreaterThan(20);
  expect(shelf[0].name).toBe('Fog Signal');
  for (const p of shelf) expect(p.labels, p.name).toHaveLength(1);
  // They stand there with their pictures, of what is shown.
  for (const p of shelf) expect(p.thumbnailRevision, p.name).toBe(p.revision);
  const gimbal = shelf.find((p) => p.name === 'Gimbal')!;
  const { revisions } = await listRevisions(db, gimbal.id);
  expect(revisions.filter((r) => r.aside && !r.sheet).map((r) => r.mark)).toEqual(['Silver and red', 'Ten thin rings']);
  expect(revisions.filter((r) => r.mark && !r.aside)).toHaveLength(2);
  const moments = revisions.map((r) => Date.parse(r.createdAt));
  expect([...moments].sort((a, b) => b - a)).toEqual(moments);
  const sources = new Set<string>();
  for (const { number } of revisions) {
    const { source } = await loadRevision(db, gimbal.id, number);
    sources.add(source);
    const read = readPiece(source);
    if (!read.ok) throw new Error(read.message);
    expect(proveSeam(read.piece).findings.filter((f) => f.kind === 'gap')).toEqual([]);
  }
  // The sheet is one of the piece as it is now.
  expect(sources.size).toBe(revisions.length - 1);
  const [sheet] = revisions.filter((r) => r.sheet);
  const kept = (await loadRevision(db, gimbal.id, sheet.number)).sheet!;
  expect([sheet.mark, kept.count]).toEqual(['Rings, 24 ways', 24]);
  expect(kept.chosen.length).toBeGreaterThan(6);
  expect((await loadPiece(db, gimbal.id)).revision).toBe(9);
});
