import type { LookKind } from '@maypole/core/looks/look';
import { readPiece } from '@maypole/core/piece/read';
import { and, count, desc, eq, isNull } from 'drizzle-orm';
import type { KeptLook } from '../../contract/pieces';
import { holdCount, type Database } from '../data/db';
import { AppError } from '../http/app-error';
import { looks } from '../data/schema';

/** Most looks of a kind. */
const MOST_LOOKS = 500;

const columns = { id: looks.id, kind: looks.kind, name: looks.name, source: looks.source };
const asLook = (row: { id: string; kind: string; name: string; source: string }): KeptLook => ({
  ...row,
  kind: row.kind as LookKind,
});

/** Looks of a kind, newest first. */
export async function listLooks(db: Database, kind: LookKind): Promise<KeptLook[]> {
  const rows = await db
    .select(columns)
    .from(looks)
    .where(and(eq(looks.kind, kind), isNull(looks.deletedAt)))
    .orderBy(desc(looks.createdAt))
    .limit(MOST_LOOKS);
  return rows.map(asLook);
}

/** Stores a look under the name of its small piece. Throws a 422 if that cannot be read. */
export async function keepLook(db: Database, kind: LookKind, source: string): Promise<KeptLook> {
  const read = readPiece(source);
  if (!read.ok) throw new AppError(422, read.message);
  return db.transaction(async (tx) => {
    await holdCount(tx, 'looks');
    const [{ n }] = await tx
      .select({ n: count() })
      .from(looks)
      .where(and(eq(looks.kind, kind), isNull(looks.deletedAt)));
    if (n >= MOST_LOOKS) throw new AppError(422, `${MOST_LOOKS} of these are kept already; take some away first.`);
    const [row] = await tx.insert(looks).values({ kind, name: read.piece.name, source }).returning(columns);
    return asLook(row);
  });
}

/** Removes a look; its row stays, with the time. */
export async function removeLook(db: Database, id: string): Promise<void> {
  const gone = await db
    .update(looks)
    .set({ deletedAt: new Date() })
    .where(and(eq(looks.id, id), isNull(looks.deletedAt)))
    .returning({ id: looks.id });
  if (gone.length === 0) throw new AppError(404, 'This is not kept any more.');
}
