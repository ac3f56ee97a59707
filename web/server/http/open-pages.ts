import { and, eq, lt, ne, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { Around, hereBody } from '../../contract/pieces';
import type { Database } from '../data/db';
import { AppError } from './app-error';
import { savedOf } from '../past/saved';
import { LOCAL, type Person } from '../../contract/person';
import { openPages, pieces, revisions } from '../data/schema';

/** Seconds after which a silent page is considered closed; visible pages report every ten. */
const SILENT = 45;

/**
 * Records that a page has a piece open, or no longer, and returns who else has, and its current revision.
 *
 * @throws AppError 404
 */
export async function noteHere(
  db: Database,
  id: string,
  { client, browser, gone }: z.infer<typeof hereBody>,
  person: Person,
): Promise<Around> {
  const [piece] = await db.select({ head: pieces.head }).from(pieces).where(eq(pieces.id, id));
  if (!piece) throw new AppError(404, 'There is no such piece. It may have been made in another Maypole.');
  const own = and(eq(openPages.pieceId, id), eq(openPages.client, client));
  const row = { browser, person: person.id, name: person.name, seenAt: sql`now()` };
  if (gone) await db.delete(openPages).where(own);
  else
    await db
      .insert(openPages)
      .values({ pieceId: id, client, ...row })
      .onConflictDoUpdate({ target: [openPages.pieceId, openPages.client], set: row });
  await db.delete(openPages).where(lt(openPages.seenAt, sql`now() - make_interval(secs => ${SILENT})`));
  const others = await db
    .select()
    .from(openPages)
    .where(and(eq(openPages.pieceId, id), ne(openPages.client, client)))
    .orderBy(openPages.name, openPages.client)
    .limit(50);
  const [saved, [head]] = await Promise.all([
    savedOf(db, id, piece.head),
    db
      .select({ client: revisions.client })
      .from(revisions)
      .where(and(eq(revisions.pieceId, id), eq(revisions.number, piece.head))),
  ]);
  return {
    others: others.map((o) => ({
      name: o.person === LOCAL.id ? null : o.name,
      browser: o.browser === browser ? 'this' : 'other',
      own: o.person === person.id && person.id !== LOCAL.id,
    })),
    head: { ...saved, revision: piece.head, own: head?.client === client },
  };
}
