import { and, desc, eq, gte } from 'drizzle-orm';
import type { Line } from '../../contract/line';
import type { Database } from '../data/db';
import { revisions } from '../data/schema';

/** Where a version sent by a page belongs. */
type InLine =
  /** It continues the page's own last version, or the current one. */
  | { readonly is: 'next' }
  /** This version, or a later one of the same page, is stored already. */
  | { readonly is: 'there'; readonly number: number; readonly aside: boolean }
  /** Somebody else has saved since. */
  | { readonly is: 'overtaken' };

/**
 * Decides where a version belongs among the saves of a piece whose row is locked.
 *
 * @param head number of the current revision
 * @param basedOn number of the last revision that the page knew
 */
export async function placeInLine(
  db: Pick<Database, 'select'>,
  id: string,
  line: Line | undefined,
  head: number,
  basedOn: number,
): Promise<InLine> {
  if (line) {
    const [own] = await db
      .select({ number: revisions.number, aside: revisions.aside, count: revisions.count })
      .from(revisions)
      .where(and(eq(revisions.pieceId, id), eq(revisions.client, line.client), gte(revisions.count, line.count)))
      .orderBy(desc(revisions.count))
      .limit(1);
    if (own) return { is: 'there', number: own.number, aside: own.aside };
    const [shown] = await db
      .select({ client: revisions.client })
      .from(revisions)
      .where(and(eq(revisions.pieceId, id), eq(revisions.number, head)));
    // The current revision is an earlier version of this very page, which may not have heard the answer.
    if (shown?.client === line.client) return { is: 'next' };
  }
  return head === basedOn ? { is: 'next' } : { is: 'overtaken' };
}
