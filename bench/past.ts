import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createPatch, applyPatch } from 'diff';
import { newId, newPiece, type Piece, type RibbonDoc } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { connect } from '../web/server/data/db';
import { deltaOf, withDelta } from '../web/server/past/delta';
import { listRevisions, readSource } from '../web/server/past/revisions';
import { createPiece, savePiece } from '../web/server/pieces/pieces';
import { compare, type Row } from './table';

/** Saves of one piece; MAYPOLE_BENCH_SAVES for fewer. */
const SAVES = Number(process.env.MAYPOLE_BENCH_SAVES ?? 10_000);

/** A piece of about 200 kB: the ribbons of those on the demo shelf, all in one, again and again. */
function large(): Piece {
  const demo = path.join(import.meta.dirname, '../demo');
  const ribbons = readdirSync(demo).flatMap((file) => {
    const read = readPiece(readFileSync(path.join(demo, file), 'utf8'));
    return read.ok ? read.piece.ribbons : [];
  });
  const piece = { ...newPiece('Large'), ribbons: [] as RibbonDoc[] };
  for (let i = 0; writePiece(piece).length < 200_000; i++)
    piece.ribbons.push({ ...ribbons[i % ribbons.length], ...newIds(ribbons[i % ribbons.length]), name: `Ribbon ${i}` });
  return piece;
}

const newIds = (r: RibbonDoc) => ({ id: newId(), steps: r.steps.map((s) => ({ ...s, id: newId() })) });

/** The piece with another name for one of its ribbons, as far down as one likes. */
const edited = (piece: Piece, i: number): string =>
  writePiece({
    ...piece,
    ribbons: piece.ribbons.map((r, k) => (k === i % piece.ribbons.length ? { ...r, name: `Edit ${i}` } : r)),
  });

/** The history of a piece that was saved very often: room, and milliseconds to list and to read (median and 95th of a hundred). */
export async function past(): Promise<Row[]> {
  const { Cluster } = await import('../tools/cli/database.mjs');
  const { prepareDatabase } = await import('../tools/cli/application.mjs');
  const folder = mkdtempSync(path.join(tmpdir(), 'maypole-bench-'));
  // The database runs as a user of its own.
  chmodSync(folder, 0o755);
  const cluster = new Cluster(path.join(folder, 'database'));
  try {
    await cluster.start();
    const url = await cluster.another('bench');
    await prepareDatabase(url, false);
    const db = connect(url);
    const piece = large();
    const text = (i: number) => edited(piece, i);
    const { id } = await createPiece(db, text(0));
    const begun = performance.now();
    for (let i = 1; i < SAVES; i++) await savePiece(db, id, { source: text(i), basedOn: i });
    const save = (performance.now() - begun) / (SAVES - 1);
    const { bytes } = await listRevisions(db, id);
    const list = await times(20, () => listRevisions(db, id));
    const read = await times(100, (i) => readSource(db, id, 1 + ((i * 7919) % SAVES)));
    await db.$client.end();
    const [a, b] = [text(1), text(2)];
    const [delta, patch] = [deltaOf(a, b), createPatch('', a, b)];
    const row = (name: string, ours: number, unit: string): Row => ({
      name,
      ours,
      unit,
      peer: null,
      peerName: '',
      ratio: null,
    });
    return [
      row(`a document of ${SAVES} saves`, a.length / 1000, 'kB'),
      row('room of one save', bytes / SAVES, 'B'),
      row('a save, read and compared', save, 'ms'),
      row('the list of all', list[0], 'ms'),
      row('the list, 95th', list[1], 'ms'),
      row('any save read', read[0], 'ms'),
      row('any save read, 95th', read[1], 'ms'),
      await compare(
        'difference of two saves',
        () => deltaOf(a, b),
        'jsdiff createPatch',
        () => createPatch('', a, b),
      ),
      await compare(
        'save from a difference',
        () => withDelta(a, delta),
        'jsdiff applyPatch',
        () => applyPatch(a, patch),
      ),
    ];
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function times(count: number, work: (i: number) => Promise<unknown>): Promise<[median: number, p95: number]> {
  const all: number[] = [];
  for (let i = 0; i < count; i++) {
    const at = performance.now();
    await work(i);
    all.push(performance.now() - at);
  }
  all.sort((x, y) => x - y);
  return [all[count >> 1], all[Math.floor(count * 0.95)]];
}
