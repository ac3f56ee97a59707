import { and, eq } from 'drizzle-orm';
import type { Saved } from '../../contract/pieces';
import type { Database } from '../data/db';
import { people } from '../people/tables';
import { revisions } from '../data/schema';

/** Who saved a revision, and when. */
export async function savedOf(db: Pick<Database, 'select'>, id: string, number: number): Promise<Saved> {
  const [row] = await db
    .select({ by: people.name, at: revisions.createdAt })
    .from(revisions)
    .leftJoin(people, eq(people.id, revisions.madeBy))
    .where(and(eq(revisions.pieceId, id), eq(revisions.number, number)));
  return { by: row?.by ?? null, at: (row?.at ?? new Date()).toISOString() };
}
