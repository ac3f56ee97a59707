import { randomUUID } from 'node:crypto';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import type { PartWork } from '@maypole/render/work/source';
import { sql } from 'drizzle-orm';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { givenWork, type GivenRow } from './given-work';
import { wantCheck } from './made-again';
import { leaseSeconds, TRIES, type Worker } from './worker';

/**
 * The queue of frames, in the piece database. Own tables rather than a library of jobs: a frame is leased, and its lease
 * renewed for as long as it takes; renders are paused, put in order and looked into as wholes, and a hundred thousand
 * frames of them wait without being touched. Claiming is one statement that skips what others are just taking.
 */
export async function claimPart(db: Database, worker: Worker): Promise<PartWork | undefined> {
  // One that is refused is seen, too, so that whoever looks at the machines is told why it does nothing.
  await seen(db, worker);
  if (worker.maker !== RENDERER_VERSION)
    throw new AppError(
      409,
      `This worker makes pictures as version ${worker.maker} does, and the renders here are of ${RENDERER_VERSION}. Bring ` +
        'it to the same version of Maypole.',
    );
  await takeBack(db);
  const lease = randomUUID();
  // Renders are few: they are gone through in their order until one has a frame to give.
  const { rows } = await db.execute<GivenRow>(sql`
    with next as (
      select p.render_id, p.index
      from (
        select id from renders
        where state = 'frames' and not paused and light = ${worker.light} and maker = ${RENDERER_VERSION}
        order by priority desc, place
      ) r
      cross join lateral (
        select render_id, index from render_parts
        where render_id = r.id and state = 'waiting'
        order by rank
        limit 1
        for update skip locked
      ) p
      limit 1
    )
    update render_parts p
    set state = 'leased', lease = ${lease}, worker = ${worker.id}, tries = tries + 1, message = null,
        lease_until = now() + make_interval(secs => ${leaseSeconds()})
    from next, renders r
    where p.render_id = next.render_id and p.index = next.index and r.id = p.render_id
    returning p.render_id, p.index, r.frames[p.index + 1] as frame, p.fingerprint, r.frame_order, r.sheets`);
  const [row] = rows;
  return row && givenWork(row, lease);
}

async function seen(db: Database, w: Worker): Promise<void> {
  await db.execute(sql`
    insert into render_workers (id, name, light, threads, maker, by)
    values (${w.id}, ${w.name}, ${w.light}, ${w.threads}, ${w.maker}, ${w.by})
    on conflict (id) do update set name = excluded.name, threads = excluded.threads, maker = excluded.maker,
      seen_at = now()`);
}

/** Frames of workers that have fallen silent wait again; those that brought down several are given up. */
export async function takeBack(db: Database): Promise<void> {
  const { rows } = await db.execute<{ render_id: string; state: string }>(sql`
    update render_parts
    set state = case when tries >= ${TRIES} then 'failed' else 'waiting' end, lease = null, lease_until = null,
        message = case when tries >= ${TRIES} then ${`${TRIES} workers fell silent over it`} else null end
    where state = 'leased' and lease_until < now()
    returning render_id, state`);
  for (const id of new Set(rows.filter((r) => r.state === 'failed').map((r) => r.render_id)))
    await settleFrames(db, id);
}

/** Goes on with a frame. False where it is no longer the worker's: it was cancelled, or given to another. */
export async function renewLease(db: Database, lease: string): Promise<boolean> {
  const { rowCount } = await db.execute(sql`
    update render_parts p set lease_until = now() + make_interval(secs => ${leaseSeconds()})
    from renders r where r.id = p.render_id and p.lease = ${lease} and p.state = 'leased' and r.state = 'frames'`);
  if (rowCount === 0) return false;
  await db.execute(sql`
    update render_workers set seen_at = now()
    where id = (select worker from render_parts where lease = ${lease} limit 1)`);
  return true;
}

const notYours = () =>
  new AppError(409, 'This frame is no longer yours: it was cancelled, or given to another worker.');

/** The fingerprint of the frame that is worked on under a lease. @throws AppError 409 where it is nobody's any more */
export async function leasedPart(db: Database, lease: string) {
  const { rows } = await db.execute<{
    render_id: string;
    index: number;
    fingerprint: string;
    sheets: FrameImageName[];
    order: FrameOrder;
  }>(sql`
    select p.render_id, p.index, p.fingerprint, r.sheets, r.frame_order as order
    from render_parts p join renders r on r.id = p.render_id
    where p.lease = ${lease} and p.state = 'leased'`);
  if (rows.length === 0) throw notYours();
  return rows[0];
}

/** A finished frame; its sheets are files by now. */
export async function finishPart(
  db: Database,
  lease: string,
  sheets: Partial<Record<FrameImageName, KeptFrameImage>>,
  { seconds, memory }: { seconds: number; memory: number },
): Promise<void> {
  const part = await leasedPart(db, lease);
  const missing = part.sheets.filter((s) => !sheets[s]);
  if (missing.length > 0) throw new AppError(422, `The frame is not whole: ${missing.join(', ')} of it is missing.`);
  const bytes = part.sheets.reduce((n, s) => n + sheets[s]!.bytes, 0);
  await db.transaction(async (tx) => {
    await tx.execute(sql`
      insert into render_sheets (fingerprint, sheets) values (${part.fingerprint}, ${JSON.stringify(sheets)}::jsonb)
      on conflict (fingerprint) do update set sheets = render_sheets.sheets || excluded.sheets`);
    const { rowCount } = await tx.execute(sql`
      update render_parts set state = 'done', lease = null, lease_until = null, seconds = ${seconds},
             memory = ${Math.round(memory)}, bytes = ${bytes}, message = null, done_at = now()
      where lease = ${lease} and state = 'leased'`);
    // Between the look and this it may have been given to another: nothing of it is kept then.
    if (rowCount === 0) throw notYours();
    await wantCheck(tx, part.render_id, part.index);
  });
  await settleFrames(db, part.render_id);
}

/** A frame that could not be made. It is tried again, by another if there is one, and given up after some times. */
export async function failPart(db: Database, lease: string, message: string, forGood: boolean): Promise<void> {
  const { rows } = await db.execute<{ render_id: string }>(sql`
    update render_parts
    set state = case when ${forGood} or tries >= ${TRIES} then 'failed' else 'waiting' end,
        lease = null, lease_until = null, message = ${message.slice(0, 500)}
    where lease = ${lease} and state = 'leased' returning render_id`);
  if (rows[0]) await settleFrames(db, rows[0].render_id);
}

/** A frame that whoever had it does not go on with: it waits again at once, and this was no try. */
export async function giveBackPart(db: Database, lease: string): Promise<void> {
  await db.execute(sql`
    update render_parts set state = 'waiting', tries = greatest(tries - 1, 0), lease = null, lease_until = null
    where lease = ${lease} and state = 'leased'`);
}

/** Goes on to the files once all frames are there; ends where some cannot be made. */
export async function settleFrames(db: Database, render: string): Promise<void> {
  await db.execute(sql`
    with n as (
      select count(*) filter (where state in ('waiting', 'leased')) as open,
             count(*) filter (where state = 'failed') as failed
      from render_parts where render_id = ${render}
    )
    update renders set
      state = case when n.failed > 0 then 'failed' else 'files' end,
      message = case when n.failed > 0 then
        n.failed || case when n.failed = 1 then ' frame' else ' frames' end || ' could not be made: ' ||
        (select message from render_parts where render_id = ${render} and state = 'failed' order by index limit 1)
        else null end,
      finished_at = case when n.failed > 0 then now() else null end
    from n where renders.id = ${render} and renders.state = 'frames' and n.open = 0`);
}

/** Sheets that are known of a frame. */
export async function keptFrameImages(
  db: Database,
  fingerprint: string,
): Promise<Partial<Record<FrameImageName, KeptFrameImage>> | undefined> {
  const { rows } = await db.execute<{ sheets: Partial<Record<FrameImageName, KeptFrameImage>> }>(
    sql`select sheets from render_sheets where fingerprint = ${fingerprint}`,
  );
  return rows[0]?.sheets;
}
