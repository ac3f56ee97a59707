import { sql } from 'drizzle-orm';
import type { Database } from '../data/db';
import { trimAuditLog } from '../people/audit-log';
import { BIN_DAYS } from '../../contract/pieces';
import { dropRevisions } from '../past/revisions';
import { noteSizes } from '../pieces/pieces';
import { beginAnew } from '../render/create';
import { clearLoose, clearOld } from '../render/renders';

/** Days that a file which nothing names is kept: a page may still hold it, unsaved. */
export const LOOSE_FILE_DAYS = 14;
/**
 * Which saves stay: all of the last two days; of those up to a month old the last of each hour; of older ones the last
 * of each day. Always kept: the one that is shown, takes, those with a name, those that a render was made of, and those that came
 * too late.
 */
const THINNING = { allDays: 2, hourlyDays: 30 } as const;

interface Upkeep {
  readonly pieces: number;
  readonly revisions: number;
  readonly files: number;
}

/**
 * Takes away what is kept no longer: pieces that were in the bin for so long, saves that others stand for, files that
 * nothing names, old lines of the trail, ended sessions, renders that ended long ago. Done once a day.
 */
export async function keepTidy(db: Database, now = new Date()): Promise<Upkeep> {
  const before = (days: number) => new Date(now.getTime() - days * 86_400_000).toISOString();
  const binned = await db.execute(sql`delete from pieces where deleted_at < ${before(BIN_DAYS)} returning id`);
  const thinned = await db.execute<{ piece_id: string; numbers: number[] }>(sql`
    with ranked as (
      select r.piece_id, r.number, row_number() over (
               partition by r.piece_id,
                 case when r.created_at >= ${before(THINNING.hourlyDays)}
                      then date_trunc('hour', r.created_at) else date_trunc('day', r.created_at) end
               order by r.number desc) as place
      from revisions r join pieces p on p.id = r.piece_id
      where r.created_at < ${before(THINNING.allDays)} and not r.aside and r.mark is null and r.number <> p.head
        and not exists (select 1 from renders d where d.piece_id = r.piece_id and d.revision = r.number))
    select piece_id, array_agg(number) as numbers from ranked where place > 1 group by piece_id`);
  for (const { piece_id: id, numbers } of thinned.rows) await dropRevisions(db, id, numbers);
  const files = await db.execute(sql`
    delete from assets
    where taken_at < ${before(LOOSE_FILE_DAYS)}
      and fingerprint not in (
        select unnest(files) from revisions
        union select (regexp_matches(source, '"([0-9a-f]{64})"', 'g'))[1] from looks
        union select (regexp_matches(source, '"([0-9a-f]{64})"', 'g'))[1] from renders)
    returning fingerprint`);
  await db.execute(sql`delete from sessions where expires_at < ${now.toISOString()}`);
  await db.execute(sql`delete from invites where expires_at < ${before(30)}`);
  await trimAuditLog(db);
  // As many times as there may be pieces, and no more.
  for (let i = 0; i < 40 && (await noteSizes(db, 500)) === 500; i++);
  await beginAnew(db);
  await clearOld(db);
  await clearLoose(db);
  return {
    pieces: binned.rowCount ?? 0,
    revisions: thinned.rows.reduce((n, r) => n + r.numbers.length, 0),
    files: files.rowCount ?? 0,
  };
}
