import { and, desc, eq, gt, gte, isNotNull, lt, lte, sql } from 'drizzle-orm';
import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import type { PastOfPiece } from '../../contract/pieces';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { pieces, revisions } from '../data/schema';
import { deltaOf, withDelta } from './delta';

/**
 * Revisions of a piece. A document is stored whole, or as a difference to the previous one; a whole one comes at least
 * every CHAIN documents, so that reading applies few differences.
 */
export const CHAIN = 128;
/** A difference longer than this share of its document is not worthwhile. */
const WORTH = 0.25;
/** Most revisions listed, newest first. */
const MOST_LISTED = 20_000;

type Reader = Pick<Database, 'select'>;
type Writer = Pick<Database, 'select' | 'insert'>;

/** A document as stored. */
interface Stored {
  readonly number: number;
  readonly source: string | null;
  readonly delta: string | null;
}

const of = (id: string) => eq(revisions.pieceId, id);

/**
 * Rows from the nearest whole document up to a number, in order: the last is the one with that number, if it exists.
 */
async function chainTo(db: Reader, id: string, number: number): Promise<Stored[]> {
  const [whole] = await db
    .select({ number: revisions.number })
    .from(revisions)
    .where(and(of(id), lte(revisions.number, number), isNotNull(revisions.source)))
    .orderBy(desc(revisions.number))
    .limit(1);
  if (!whole) return [];
  return db
    .select({ number: revisions.number, source: revisions.source, delta: revisions.delta })
    .from(revisions)
    .where(and(of(id), lte(revisions.number, number), gte(revisions.number, whole.number)))
    .orderBy(revisions.number);
}

function textOf(chain: readonly Stored[]): string {
  let text = '';
  for (const { source, delta } of chain) text = source ?? withDelta(text, delta!);
  return text;
}

/** The latest documents of a piece, from the last whole one on. */
export const readEnd = (db: Reader, id: string): Promise<readonly Stored[]> => chainTo(db, id, 2 ** 31 - 1);

/** The document with a number within a chain; undefined if it is not there. */
export function sourceIn(chain: readonly Stored[], number: number): string | undefined {
  const at = chain.findIndex((r) => r.number === number);
  return at < 0 ? undefined : textOf(chain.slice(0, at + 1));
}

/** The exact document of a revision; undefined if it does not exist. */
export async function readSource(db: Reader, id: string, number: number): Promise<string | undefined> {
  const chain = await chainTo(db, id, number);
  return chain.at(-1)?.number === number ? textOf(chain) : undefined;
}

/** How to store a document after a chain of others: as a difference if worthwhile. */
function packed(chain: readonly Stored[], source: string): { source: string | null; delta: string | null } {
  if (chain.length === 0 || chain.length >= CHAIN) return { source, delta: null };
  const delta = deltaOf(textOf(chain), source);
  return delta.length > source.length * WORTH ? { source, delta: null } : { source: null, delta };
}

/** SHA-256 fingerprints that a document names. */
const filesIn = (source: string): string[] => [...new Set([...source.matchAll(/"([0-9a-f]{64})"/g)].map((m) => m[1]))];

export interface NewRevision {
  readonly source: string;
  readonly basedOn?: number;
  /** Kept beside: the current revision stays. */
  readonly aside?: boolean;
  readonly mark?: string;
  readonly sheet?: KeptSheet;
  readonly client?: string;
  readonly count?: number;
  /** Who made it. */
  readonly madeBy?: string;
}

/**
 * Appends a document to a piece, whose row is locked; returns its number.
 *
 * @param end the latest documents, if already read
 */
export async function appendRevision(
  tx: Writer,
  id: string,
  { source, ...facts }: NewRevision,
  end?: readonly Stored[],
): Promise<number> {
  const chain = end ?? (await readEnd(tx, id));
  const number = (chain.at(-1)?.number ?? 0) + 1;
  await tx
    .insert(revisions)
    .values({ pieceId: id, number, ...facts, ...packed(chain, source), files: filesIn(source) });
  return number;
}

/** Saves and takes of a piece, newest first, and their size. Throws 404. */
export async function listRevisions(db: Database, id: string): Promise<PastOfPiece> {
  const [rows, [{ bytes }]] = await Promise.all([
    db
      .select({
        number: revisions.number,
        basedOn: revisions.basedOn,
        aside: revisions.aside,
        mark: revisions.mark,
        sheet: sql<boolean>`${revisions.sheet} is not null`,
        createdAt: revisions.createdAt,
      })
      .from(revisions)
      .where(of(id))
      .orderBy(desc(revisions.number))
      .limit(MOST_LISTED),
    db
      .select({
        // Size of a compressed text on disk, without reading it.
        bytes: sql<string>`coalesce(sum(pg_column_size(${revisions.source})), 0) + coalesce(sum(pg_column_size(${revisions.delta})), 0)`,
      })
      .from(revisions)
      .where(of(id)),
  ]);
  if (rows.length === 0) throw new AppError(404, 'There is no such piece. It may have been made in another Maypole.');
  return { revisions: rows.map((r) => ({ ...r, createdAt: r.createdAt.toISOString() })), bytes: Number(bytes) };
}

/** The sheet stored with a revision; null for none. */
export async function sheetOf(db: Reader, id: string, number: number): Promise<KeptSheet | null> {
  const [row] = await db
    .select({ sheet: revisions.sheet })
    .from(revisions)
    .where(and(of(id), eq(revisions.number, number)));
  return row?.sheet ?? null;
}

/** Names a revision, so that it is kept for good, or removes its name. */
export async function setMark(
  db: Pick<Database, 'update'>,
  id: string,
  number: number,
  mark: string | null,
): Promise<void> {
  const rows = await db
    .update(revisions)
    .set({ mark })
    .where(and(of(id), eq(revisions.number, number)))
    .returning({ id: revisions.id });
  if (rows.length === 0) throw noRevision(number);
}

/** Deletes revisions; differences based on them are recomputed against what is left. */
export async function dropRevisions(db: Pick<Database, 'transaction'>, id: string, numbers: readonly number[]) {
  const gone = new Set(numbers);
  await db.transaction(async (tx) => {
    await tx.select({ id: pieces.id }).from(pieces).where(eq(pieces.id, id)).for('update');
    const rows = await tx.select({ number: revisions.number }).from(revisions).where(of(id)).orderBy(revisions.number);
    /** Remaining revisions whose predecessor goes: read with it, and rewritten after it is gone. */
    const torn = rows.filter((r, i) => i > 0 && !gone.has(r.number) && gone.has(rows[i - 1].number));
    for (const { number } of torn) {
      const text = (await readSource(tx, id, number))!;
      const [before] = await tx
        .select({ number: revisions.number })
        .from(revisions)
        .where(
          and(of(id), lt(revisions.number, number), sql`${revisions.number} <> all(${sql.param([...gone])}::int[])`),
        )
        .orderBy(desc(revisions.number))
        .limit(1);
      // Those between are being deleted: the first of them no longer needs its own predecessor.
      await tx
        .delete(revisions)
        .where(and(of(id), lt(revisions.number, number), gt(revisions.number, before?.number ?? 0)));
      const form = packed(before ? await chainTo(tx, id, before.number) : [], text);
      await tx
        .update(revisions)
        .set(form)
        .where(and(of(id), eq(revisions.number, number)));
    }
    await tx.delete(revisions).where(and(of(id), sql`${revisions.number} = any(${sql.param([...gone])}::int[])`));
  });
}

export function noRevision(number: number): AppError {
  return new AppError(404, `There is no revision ${number} of this piece; it may have been thinned out.`);
}
