import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import { variablesOf } from '@maypole/core/explore/variables';
import type { Database } from '../data/db';
import { createPiece, keepTake, savePiece, storeThumbnail } from '../pieces/pieces';
import { setMark } from '../past/revisions';
import { pieces, revisions } from '../data/schema';
import { demoFiles, demoStrip } from './files';
import { gimbalPast } from './gimbal-past';

/** Labels of the demo pieces. */
const LABELS: Readonly<Record<string, readonly string[]>> = {
  Signals: ['Fog Signal', 'Night Watch', 'Aurora Switchboard', 'Station Sign'],
  Instruments: ['Gimbal', 'Rain Gauge', 'Sundial', 'Anemometer', 'Core Sample'],
  Weather: ['Cloud Chamber', 'Dew Point', 'Pressure Cells', 'Isobar Field', 'Halo', 'Trade Wind', 'Squall Braid'],
  Ornament: ['Rime Lattice', 'Barometer Blooms', 'Front Rosette', 'Hail Cage', 'Pollen Count', 'Hail Loom'],
};

/** Fills an empty shelf with the demo pieces, labelled, one of them with a history. All or nothing. */
export async function fillShelf(db: Database, folder: string): Promise<void> {
  await db.transaction(async (tx) => {
    // The last one made is the first on the shelf.
    for (const file of demoFiles(folder).reverse()) {
      const source = readFileSync(path.join(folder, file), 'utf8');
      const read = readPiece(source);
      const name = read.ok ? read.piece.name : '';
      const { id } = name === 'Gimbal' && read.ok ? await withPast(tx, read.piece) : await createPiece(tx, source);
      const labels = Object.keys(LABELS).filter((l) => LABELS[l].includes(name));
      await tx.update(pieces).set({ labels }).where(eq(pieces.id, id));
      // Prepared pictures, so that a new shelf does not show empty cards for minutes.
      const strip = demoStrip(file);
      if (!existsSync(strip)) continue;
      const [{ revision }] = await tx.select({ revision: pieces.head }).from(pieces).where(eq(pieces.id, id));
      await storeThumbnail(tx, id, revision, readFileSync(strip));
    }
  });
}

/** What varies on the sheet stored with Gimbal. */
const VARIES = ['Torus pipe radius', 'Nest copies', 'Nest size', 'Nest turn y', 'Nest turn z', 'Nest seed', 'Finish colour'];

const sheetOf = (piece: Parameters<typeof variablesOf>[0]): KeptSheet => ({
  chosen: variablesOf(piece)
    .filter((v) => VARIES.includes(v.title))
    .map((v) => v.key),
  locked: [],
  reach: 0.45,
  count: 24,
  seed: 8,
  way: { type: 'spread' },
});

type Tx = Parameters<Parameters<Database['transaction']>[0]>[0];

/** Makes a piece with its earlier saves, an hour or so apart, and its takes. */
async function withPast(tx: Tx, piece: Parameters<typeof gimbalPast>[0]): Promise<{ id: string }> {
  const { saves, takes } = gimbalPast(piece);
  const { id } = await createPiece(tx, writePiece(saves[0].piece));
  for (const [i, { piece: next }] of saves.entries()) if (i > 0) await savePiece(tx, id, { source: writePiece(next), basedOn: i });
  for (const [i, { mark }] of saves.entries()) if (mark) await setMark(tx, id, i + 1, mark);
  for (const { piece: take, mark } of takes) await keepTake(tx, id, { source: writePiece(take), mark });
  await keepTake(tx, id, { source: writePiece(piece), mark: 'Rings, 24 ways', sheet: sheetOf(piece) });
  const ago = sql`now() - make_interval(mins => (50 * (${saves.length + takes.length + 1} - ${revisions.number}))::int)`;
  await tx.update(revisions).set({ createdAt: ago }).where(eq(revisions.pieceId, id));
  await tx
    .update(pieces)
    .set({ updatedAt: sql`clock_timestamp()` })
    .where(eq(pieces.id, id));
  return { id };
}
