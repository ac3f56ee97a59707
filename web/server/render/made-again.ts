import { randomUUID } from 'node:crypto';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import type { PartWork } from '@maypole/render/work/source';
import { sql, type SQL } from 'drizzle-orm';
import type { Database } from '../data/db';
import { log } from '../gateway/log';
import { AppError } from '../http/app-error';
import type { MadeAgain } from '../../contract/renders';
import { givenWork, type GivenRow } from './given-work';
import { leaseSeconds, TRIES, type Worker } from './worker';

/**
 * True light has the same bytes on every machine, and that is verified: a sample of frames is made once more by another
 * idle machine and compared. The first result is kept; a difference is reported with the names of both.
 */

/** One frame of this many is made twice, including the first of a render. */
const ONE_OF = 32;
/** Minutes after the end of a render in which its sample is still made. */
const LATE = 60;

/** What runs statements: the database, or a transaction. */
type Runs = Pick<Database, 'execute'>;

/** Schedules a finished frame to be made once more, if it is in the sample. */
export async function wantCheck(db: Runs, render: string, index: number): Promise<void> {
  await db.execute(sql`
    insert into render_checks (render_id, index)
    select p.render_id, p.index
    from render_parts p join renders r on r.id = p.render_id
    where p.render_id = ${render} and p.index = ${index} and r.light = 'true' and not r.estimate
      and p.rank % ${ONE_OF} = 0
    on conflict (render_id, index) do update set state = 'waiting', lease = null, tries = 0`);
}

/** Sampled frames that wait for a machine other than their maker. */
const waitingFor = ({ name, by }: Pick<Worker, 'name' | 'by'>): SQL => sql`
  select c.render_id, c.index
  from render_checks c
  join render_parts p on p.render_id = c.render_id and p.index = c.index
  join renders r on r.id = c.render_id
  left join render_workers w on w.id = p.worker
  where c.state = 'waiting' and p.state = 'done' and not r.paused and r.maker = ${RENDERER_VERSION}
    and (w.name, w.by) is distinct from (${name}::text, ${by}::text)
    and (r.state in ('frames', 'files')
         or (r.state = 'done' and r.finished_at > now() - make_interval(mins => ${LATE})))`;

/** Whether there is such a frame. */
export async function awaitsCheck(db: Database, worker: Pick<Worker, 'name' | 'by'>): Promise<boolean> {
  const { rows } = await db.execute(sql`${waitingFor(worker)} limit 1`);
  return rows.length > 0;
}

/** Claims a sampled frame. */
export async function claimCheck(db: Database, worker: Worker): Promise<PartWork | undefined> {
  if (worker.light !== 'true') return undefined;
  await db.execute(sql`
    update render_checks set state = case when tries >= ${TRIES} then 'failed' else 'waiting' end, lease = null
    where state = 'leased' and lease_until < now()`);
  const lease = randomUUID();
  const { rows } = await db.execute<GivenRow>(sql`
    with next as (${waitingFor(worker)} order by r.priority desc, r.place, p.rank limit 1 for update of c skip locked)
    update render_checks c
    set state = 'leased', lease = ${lease}, worker = ${worker.id}, tries = c.tries + 1,
        lease_until = now() + make_interval(secs => ${leaseSeconds()})
    from next, render_parts p, renders r
    where c.render_id = next.render_id and c.index = next.index
      and p.render_id = c.render_id and p.index = c.index and r.id = c.render_id
    returning c.render_id, c.index, r.frames[c.index + 1] as frame, p.fingerprint, r.frame_order, r.sheets`);
  const [row] = rows;
  return row && { ...givenWork(row, lease), again: true };
}

/** Renews its lease; false if nobody wants it any more. */
export async function renewCheck(db: Database, lease: string): Promise<boolean> {
  const { rowCount } = await db.execute(sql`
    update render_checks set lease_until = now() + make_interval(secs => ${leaseSeconds()})
    where lease = ${lease} and state = 'leased'`);
  return rowCount !== 0;
}

/** Returns it: it waits again at once, and this was no attempt. */
export async function giveBackCheck(db: Database, lease: string): Promise<void> {
  await db.execute(sql`
    update render_checks set state = 'waiting', tries = greatest(tries - 1, 0), lease = null, lease_until = null
    where lease = ${lease} and state = 'leased'`);
}

/** The render of a sampled frame's lease; undefined if it is none. */
export async function renderOfCheck(db: Database, lease: string): Promise<string | undefined> {
  const { rows } = await db.execute<{ render_id: string }>(
    sql`select render_id from render_checks where lease = ${lease} and state = 'leased'`,
  );
  return rows[0]?.render_id;
}

/** Whether two frame images show the same picture; files may differ if zlib of another processor packed them. */
function isSame(a: KeptFrameImage | undefined, b: KeptFrameImage | undefined): boolean {
  if (!a || !b) return false;
  return a.sha256 === b.sha256 || (a.content !== undefined && a.content === b.content);
}

/** Compares the result with the stored frame. @throws AppError 409 if the lease has ended */
export async function finishCheck(
  db: Database,
  lease: string,
  sheets: Partial<Record<FrameImageName, KeptFrameImage>>,
): Promise<void> {
  const { rows } = await db.execute<{
    render_id: string;
    index: number;
    wanted: FrameImageName[];
    kept: Partial<Record<FrameImageName, KeptFrameImage>> | null;
  }>(sql`
    select c.render_id, c.index, r.sheets as wanted, s.sheets as kept
    from render_checks c
    join render_parts p on p.render_id = c.render_id and p.index = c.index
    join renders r on r.id = c.render_id
    left join render_sheets s on s.fingerprint = p.fingerprint
    where c.lease = ${lease} and c.state = 'leased'`);
  if (rows.length === 0) throw new AppError(409, 'Nobody wants this frame a second time any more.');
  const [{ render_id, index, wanted, kept }] = rows;
  const same = wanted.every((name) => isSame(sheets[name], kept?.[name]));
  await db.execute(sql`
    update render_checks set state = ${same ? 'same' : 'other'}, lease = null, lease_until = null
    where lease = ${lease} and state = 'leased'`);
  if (!same) log().error({ render: render_id, index, kept, sheets }, 'a frame came out different on another machine');
}

/** It could not be made; another may try. The stored frame stays. */
export async function failCheck(db: Database, lease: string): Promise<void> {
  await db.execute(sql`
    update render_checks set state = case when tries >= ${TRIES} then 'failed' else 'waiting' end, lease = null
    where lease = ${lease} and state = 'leased'`);
}

/** Results of sampled frames, by render. */
export async function madeAgain(db: Database, renders: readonly string[]): Promise<ReadonlyMap<string, MadeAgain>> {
  const ids = sql.param(renders);
  const { rows } = await db.execute<{ render_id: string; same: number; other: MadeAgain['other'] }>(sql`
    select c.render_id, (count(*) filter (where c.state = 'same'))::int as same,
           coalesce(json_agg(json_build_object(
             'frame', r.frames[c.index + 1], 'first', coalesce(v.name, p.worker), 'again', coalesce(w.name, c.worker)
           ) order by c.index) filter (where c.state = 'other'), '[]') as other
    from render_checks c
    join render_parts p on p.render_id = c.render_id and p.index = c.index
    join renders r on r.id = c.render_id
    left join render_workers w on w.id = c.worker
    left join render_workers v on v.id = p.worker
    where c.render_id = any(${ids}::uuid[]) and c.state in ('same', 'other')
    group by c.render_id`);
  return new Map(rows.map(({ render_id, same, other }) => [render_id, { same, other }]));
}
