import { inArray, sql } from 'drizzle-orm';
import { MOST_LABELS, type SeveralEdit } from '../../contract/pieces';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { pieces } from '../data/schema';

/** Changes several pieces: all of them, or none. Throws a 404 if one is missing, a 422 for too many labels. */
export async function editSeveral(db: Pick<Database, 'transaction'>, what: SeveralEdit): Promise<void> {
  const ids = [...new Set(what.ids)];
  await db.transaction(async (tx) => {
    const rows = await tx
      .select({ id: pieces.id, name: pieces.name, labels: pieces.labels })
      .from(pieces)
      .where(inArray(pieces.id, ids))
      .for('update');
    if (rows.length < ids.length)
      throw new AppError(404, `${ids.length - rows.length} of these pieces are not there any more. Reload the shelf.`);
    if (what.does === 'label') {
      const full = rows.find((r) => r.labels.length >= MOST_LABELS && !r.labels.includes(what.label));
      if (full)
        throw new AppError(422, `“${full.name}” has ${MOST_LABELS} labels already; take one away from it first.`);
      const added = sql`(select array_agg(distinct l order by l) from unnest(array_append(labels, ${what.label}::text)) l)`;
      await tx.update(pieces).set({ labels: added }).where(inArray(pieces.id, ids));
    } else if (what.does === 'unlabel')
      await tx
        .update(pieces)
        .set({ labels: sql`array_remove(labels, ${what.label}::text)` })
        .where(inArray(pieces.id, ids));
    else
      await tx
        .update(pieces)
        .set({ deletedAt: what.does === 'bin' ? new Date() : null })
        .where(inArray(pieces.id, ids));
  });
}
