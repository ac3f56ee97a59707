import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { readPiece } from '@maypole/core/piece/read';
import { proveSeam } from '@maypole/core/seam/proof';
import { and, desc, eq, isNotNull, isNull, lte, or, sql } from 'drizzle-orm';
import type { Conflict, PieceSummary, StoredPiece, StoredRevision } from '../../contract/pieces';
import { holdCount, type Database } from '../data/db';
import { AppError } from '../http/app-error';
import type { Line } from '../../contract/line';
import { placeInLine } from '../past/line';
import { savedOf } from '../past/saved';
import {
  appendRevision,
  noRevision,
  readEnd,
  readSource,
  sheetOf,
  sourceIn,
  type NewRevision,
} from '../past/revisions';
import { assertRoomForPiece } from '../upkeep/room';
import { pieces } from '../data/schema';

/**
 * Facts of a document for the shelf. Throws a 422 for documents that must not be stored; newer ones are stored as they
 * are.
 */
function factsOf(source: string) {
  const read = readPiece(source);
  if (read.ok) {
    const { name, loop, format } = read.piece;
    return {
      name,
      width: format.width,
      height: format.height,
      frames: loop.frames,
      fps: loop.fps,
      gaps: proveSeam(read.piece).findings.filter((f) => f.kind === 'gap').length,
      trouble: null,
    };
  }
  if (read.reason !== 'newer') throw new AppError(422, read.message);
  const none = { frames: null, fps: null, width: null, height: null, gaps: null };
  return { name: nameIn(source) ?? 'Unreadable piece', ...none, trouble: read.message };
}

function nameIn(source: string): string | undefined {
  try {
    const name: unknown = JSON.parse(source)?.name;
    return typeof name === 'string' && name ? keepable(name, LIMITS.nameOfPiece) || undefined : undefined;
  } catch {
    return undefined;
  }
}

const summaryColumns = {
  id: pieces.id,
  name: pieces.name,
  revision: pieces.head,
  frames: pieces.frames,
  fps: pieces.fps,
  width: pieces.width,
  height: pieces.height,
  gaps: pieces.gaps,
  trouble: pieces.trouble,
  updatedAt: pieces.updatedAt,
  thumbnailRevision: pieces.thumbnailRevision,
  labels: pieces.labels,
  delivered: sql<boolean>`exists (select 1 from renders r join render_files f on f.render_id = r.id
    where r.piece_id = "pieces"."id" and not r.estimate and f.state = 'done')`,
  deletedAt: pieces.deletedAt,
};

/** All pieces on the shelf, or in the bin, latest change first. */
export async function listPieces(db: Database, bin = false): Promise<PieceSummary[]> {
  const rows = await db
    .select(summaryColumns)
    .from(pieces)
    .where(bin ? isNotNull(pieces.deletedAt) : isNull(pieces.deletedAt))
    .orderBy(desc(pieces.updatedAt), pieces.name);
  return rows.map((r) => ({
    ...r,
    updatedAt: r.updatedAt.toISOString(),
    deletedAt: r.deletedAt?.toISOString() ?? null,
  }));
}

export async function createPiece(
  db: Pick<Database, 'transaction'>,
  source: string,
  madeBy = '',
): Promise<StoredPiece> {
  const facts = factsOf(source);
  return db.transaction(async (tx) => {
    await holdCount(tx, 'pieces');
    await assertRoomForPiece(tx, madeBy);
    // clock_timestamp rather than the transaction's: several may be made in one.
    const [row] = await tx
      .insert(pieces)
      .values({ ...facts, head: 1, madeBy, updatedAt: sql`clock_timestamp()` })
      .returning({ id: pieces.id });
    return { id: row.id, revision: await appendRevision(tx, row.id, { source, madeBy }), source };
  });
}

export async function loadPiece(db: Database, id: string): Promise<StoredPiece> {
  const [row] = await db.select({ head: pieces.head }).from(pieces).where(eq(pieces.id, id));
  if (!row) throw missing();
  return loadRevision(db, id, row.head);
}

export async function loadRevision(db: Database, id: string, number: number): Promise<StoredRevision> {
  const [source, sheet] = await Promise.all([readSource(db, id, number), sheetOf(db, id, number)]);
  if (source === undefined) throw noRevision(number);
  return { id, revision: number, source, sheet };
}

/** A version of a piece to be saved. */
export interface Save {
  readonly source: string;
  /** The revision it is based on. */
  readonly basedOn: number;
  /** The sending page; without it nothing is known of what it sent before. */
  readonly line?: Line;
  /** Who saves it. */
  readonly by?: string;
}

/**
 * Appends a revision. Versions of one page form a line, whichever arrives first or twice. If somebody else has saved
 * since its base, it is kept aside and the current revision stays; the caller gets both numbers, and whose the other
 * one is.
 */
export async function savePiece(
  db: Pick<Database, 'transaction'>,
  id: string,
  { source, basedOn, line, by = '' }: Save,
): Promise<{ revision: number } | Conflict> {
  const facts = factsOf(source);
  return db.transaction(async (tx) => {
    const [row] = await tx.select({ head: pieces.head }).from(pieces).where(eq(pieces.id, id)).for('update');
    if (!row) throw missing();
    // An identical current document counts as saved: a page whose answer was lost asks again.
    const end = await readEnd(tx, id);
    const head = sourceIn(end, row.head) ?? (await readSource(tx, id, row.head));
    if (head === source) return { revision: row.head };
    const place = await placeInLine(tx, id, line, row.head, basedOn);
    if (place.is === 'there' && !place.aside) return { revision: place.number };
    const aside = place.is !== 'next';
    const number =
      place.is === 'there'
        ? place.number
        : await appendRevision(tx, id, { source, basedOn, aside, ...line, madeBy: by }, end);
    if (aside)
      return {
        error: 'This piece was changed elsewhere since you opened it. Your version is kept beside it.',
        head: row.head,
        kept: number,
        saved: await savedOf(tx, id, row.head),
      };
    await tx
      .update(pieces)
      .set({ ...facts, head: number, updatedAt: new Date() })
      .where(eq(pieces.id, id));
    return { revision: number };
  });
}

export async function duplicatePiece(db: Database, id: string, madeBy = ''): Promise<StoredPiece> {
  const { source } = await loadPiece(db, id);
  const read = readPiece(source);
  if (!read.ok) throw new AppError(422, `A copy cannot be named: ${read.message} Export it instead.`);
  const names = new Set((await listPieces(db)).map((p) => p.name));
  const base = keepable(read.piece.name, LIMITS.nameOfPiece - 12);
  let name = `${base} copy`;
  for (let i = 2; names.has(name); i++) name = `${base} copy ${i}`;
  return createPiece(db, JSON.stringify({ ...read.piece, name }), madeBy);
}

/**
 * Stores what a revision's shapes say of its seam, in place of its motions alone; ignored if another revision is
 * current by now.
 */
export async function storeGaps(db: Database, id: string, revision: number, gaps: number): Promise<void> {
  const rows = await db
    .update(pieces)
    .set({ gaps: sql`case when ${pieces.head} = ${revision} then ${gaps} else ${pieces.gaps} end` })
    .where(eq(pieces.id, id))
    .returning({ id: pieces.id });
  if (rows.length === 0) throw missing();
}

/** Fills in sizes of pieces that predate the column, some at a time. Returns how many. */
export async function noteSizes(db: Database, most = 500): Promise<number> {
  const rows = await db
    .select({ id: pieces.id, head: pieces.head })
    .from(pieces)
    .where(and(isNull(pieces.width), isNotNull(pieces.frames)))
    .limit(most);
  for (const { id, head } of rows) {
    const read = readPiece((await readSource(db, id, head)) ?? '');
    if (read.ok)
      await db
        .update(pieces)
        .set(read.piece.format)
        .where(and(eq(pieces.id, id), eq(pieces.head, head)));
  }
  return rows.length;
}

/** Puts a piece into the bin, or takes it out. Nothing is erased. */
export async function setDeleted(db: Database, id: string, deleted: boolean): Promise<void> {
  const rows = await db
    .update(pieces)
    .set({ deletedAt: deleted ? new Date() : null })
    .where(eq(pieces.id, id))
    .returning({ id: pieces.id });
  if (rows.length === 0) throw missing();
}

/** Keeps a named version beside the piece; the current one stays. */
export async function keepTake(
  db: Pick<Database, 'transaction'>,
  id: string,
  { source, ...take }: Pick<NewRevision, 'source' | 'sheet' | 'madeBy'> & { readonly mark: string },
): Promise<{ revision: number }> {
  factsOf(source);
  return db.transaction(async (tx) => {
    const [row] = await tx.select({ head: pieces.head }).from(pieces).where(eq(pieces.id, id)).for('update');
    if (!row) throw missing();
    return { revision: await appendRevision(tx, id, { source, ...take, basedOn: row.head, aside: true }) };
  });
}

export async function storeThumbnail(db: Database, id: string, revision: number, picture: Buffer): Promise<void> {
  const [there] = await db.select({ head: pieces.head }).from(pieces).where(eq(pieces.id, id));
  if (!there) throw missing();
  if (revision > there.head) throw new AppError(404, `There is no revision ${revision} of this piece.`);
  // A late picture of an older revision does not replace a newer one.
  const newer = and(eq(pieces.id, id), or(isNull(pieces.thumbnailRevision), lte(pieces.thumbnailRevision, revision)));
  await db.update(pieces).set({ thumbnail: picture, thumbnailRevision: revision }).where(newer);
}

export async function loadThumbnail(db: Database, id: string): Promise<Buffer> {
  const [row] = await db.select({ picture: pieces.thumbnail }).from(pieces).where(eq(pieces.id, id));
  if (!row?.picture) throw new AppError(404, 'This piece has no thumbnail yet.');
  return row.picture;
}

function missing(): AppError {
  return new AppError(404, 'There is no such piece. It may have been made in another Maypole.');
}
