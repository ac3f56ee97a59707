import { rm } from 'node:fs/promises';
import type { FrameImageStore } from '@maypole/render/frame/keep';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import { sql, type SQL } from 'drizzle-orm';
import type { FileReport } from '@maypole/render/check/report';
import type { MadeFile } from '@maypole/render/deliver';
import type {
  FileSummary,
  PartSummary,
  Queue,
  RenderChange,
  RenderDetail,
  RenderSummary,
  WorkerSummary,
} from '../../contract/renders';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { settleFrames } from './queue';
import { removeFiles } from './files';
import { madeAgain } from './made-again';
import { freeBytes, frameImageStore, waitsForRoom } from './room';
import type { RenderState, WorkState } from '../../contract/renders';
import { HERE } from './worker';

/** Renders that a list shows. */
const SHOWN = 200;
/** Seconds after which a worker that says nothing is no longer told of. */
const FORGOTTEN = 120;

interface Row extends Record<string, unknown> {
  readonly id: string;
  readonly piece_id: string | null;
  readonly name: string;
  readonly revision: number;
  readonly state: RenderState;
  readonly paused: boolean;
  readonly estimate: boolean;
  readonly priority: number;
  readonly frame_order: FrameOrder;
  readonly frames: number;
  readonly loop_frames: number;
  readonly done: string;
  readonly failed: string;
  readonly leased: string;
  readonly taken: string;
  readonly bytes: string;
  readonly spent: number;
  readonly each: number | null;
  readonly memory: number | null;
  readonly message: string | null;
  readonly created_at: Date;
  readonly finished_at: Date | null;
}

async function summaries(db: Database, which: SQL): Promise<RenderSummary[]> {
  const { rows } = await db.execute<Row>(sql`
    select r.id, r.piece_id, r.name, r.revision, r.state, r.paused, r.estimate, r.priority, r.frame_order,
           cardinality(r.frames) as frames, r.loop_frames, r.message, r.created_at, r.finished_at, n.*
    from renders r
    cross join lateral (
      select count(*) filter (where p.state = 'done') as done,
             count(*) filter (where p.state = 'failed') as failed,
             count(*) filter (where p.state = 'leased') as leased,
             count(*) filter (where p.taken_over) as taken,
             coalesce(sum(p.seconds), 0)::float8 as spent,
             (avg(p.seconds) filter (where not p.taken_over))::float8 as each,
             max(p.memory) as memory,
             coalesce(sum(p.bytes), 0) + (select coalesce(sum(f.bytes), 0) from render_files f where f.render_id = r.id) as bytes
      from render_parts p where p.render_id = r.id
    ) n
    where ${which}
    order by (r.state in ('frames', 'files')) desc, case when r.state in ('frames', 'files') then -r.priority end,
             case when r.state in ('frames', 'files') then r.place end, r.created_at desc
    limit ${SHOWN}`);
  if (rows.length === 0) return [];
  const ids = sql.param(rows.map((r) => r.id));
  const files = await db.execute<{
    id: string;
    render_id: string;
    kind: string;
    state: WorkState;
    share: number;
    files: readonly MadeFile[] | null;
    bytes: string | null;
    report: FileReport | null;
    message: string | null;
  }>(sql`
    select id, render_id, item ->> 'kind' as kind, state, share, files, bytes, report, message
    from render_files where render_id = any(${ids}::uuid[]) order by position`);
  const rates = await workingRates(db);
  const again = await madeAgain(
    db,
    rows.map((r) => r.id),
  );
  return rows.map((r) => {
    const open = r.frames - Number(r.done) - Number(r.failed);
    const rate = rates.get(r.id) ?? 0;
    return {
      id: r.id,
      pieceId: r.piece_id,
      name: r.name,
      revision: r.revision,
      state: r.state,
      paused: r.paused,
      estimate: r.estimate,
      priority: r.priority,
      order: r.frame_order,
      frames: r.frames,
      loopFrames: r.loop_frames,
      done: Number(r.done),
      failed: Number(r.failed),
      leased: Number(r.leased),
      takenOver: Number(r.taken),
      bytes: Number(r.bytes),
      left: r.state === 'frames' && !r.paused && rate > 0 ? open / rate : null,
      spent: r.spent,
      each: r.each,
      memory: r.memory,
      message: r.message,
      again: again.get(r.id) ?? { same: 0, other: [] },
      createdAt: new Date(r.created_at).toISOString(),
      finishedAt: r.finished_at && new Date(r.finished_at).toISOString(),
      files: files.rows
        .filter((f) => f.render_id === r.id)
        .map((f): FileSummary => ({
          id: f.id,
          kind: f.kind,
          state: f.state,
          share: f.share,
          name: f.files?.[0]?.name ?? null,
          count: f.files?.length ?? 0,
          bytes: f.bytes === null ? null : Number(f.bytes),
          report: f.report,
          message: f.message,
        })),
    };
  });
}

/** Frames a second of each render, by those that were finished in the last minutes and those that are worked on. */
async function workingRates(db: Database): Promise<Map<string, number>> {
  const { rows } = await db.execute<{ render_id: string; rate: number }>(sql`
    select render_id, sum(1 / greatest(mean, 0.01))::float8 as rate
    from (
      select render_id, worker, avg(seconds) as mean
      from render_parts
      where state = 'done' and not taken_over and done_at > now() - interval '10 minutes'
        and worker in (select id from render_workers where seen_at > now() - interval '1 minute')
      group by render_id, worker
    ) w group by render_id`);
  return new Map(rows.map((r) => [r.render_id, r.rate]));
}

export async function workersNow(db: Database): Promise<WorkerSummary[]> {
  const { rows } = await db.execute<Omit<WorkerSummary, 'silent'> & { silent: number } & Record<string, unknown>>(sql`
    select id, name, light, threads, by, maker <> ${RENDERER_VERSION} as other, extract(epoch from now() - seen_at)::float8 as silent
    from render_workers
    where seen_at > now() - make_interval(secs => case when by = ${HERE.by} then 25 else ${FORGOTTEN} end)
    order by name`);
  return rows.map(({ id, name, light, threads, by, other, silent }) => ({
    ...{ id, name, light, threads, by, other, silent },
  }));
}

/** All renders, those that are under way first, in the order in which they are worked on. */
export async function queueNow(db: Database, piece?: string): Promise<Queue> {
  const [list, workers, free, used, waits] = await Promise.all([
    summaries(db, piece ? sql`r.piece_id = ${piece}` : sql`true`),
    workersNow(db),
    freeBytes(),
    usedBytes(db),
    waitsForRoom(),
  ]);
  return { renders: list, workers, free, used, waits };
}

async function usedBytes(db: Database): Promise<number> {
  const { rows } = await db.execute<{ used: string }>(sql`
    select (select coalesce(sum((sheet.value ->> 'bytes')::bigint), 0)
            from render_sheets s cross join lateral jsonb_each(s.sheets) sheet)
         + (select coalesce(sum(bytes), 0) from render_files) as used`);
  return Number(rows[0].used);
}

const gone = () => new AppError(404, 'There is no such render; it may have been cleared.');

export async function renderNow(db: Database, id: string): Promise<RenderDetail> {
  const [summary] = await summaries(db, sql`r.id = ${id}`);
  if (!summary) throw gone();
  const { rows } = await db.execute<{
    index: number;
    frame: number;
    state: WorkState;
    worker: string | null;
    seconds: number | null;
    taken_over: boolean;
    message: string | null;
    done_at: Date | null;
  }>(sql`
    select p.index, r.frames[p.index + 1] as frame, p.state, coalesce(w.name, p.worker) as worker, p.seconds,
           p.taken_over, p.message, p.done_at
    from render_parts p join renders r on r.id = p.render_id left join render_workers w on w.id = p.worker
    where p.render_id = ${id} order by p.index`);
  const parts = rows.map((p): PartSummary => ({
    index: p.index,
    frame: p.frame,
    state: p.state,
    worker: p.worker,
    seconds: p.seconds,
    takenOver: p.taken_over,
    message: p.message,
    doneAt: p.done_at && new Date(p.done_at).toISOString(),
  }));
  const shares = new Map<string, { worker: string; frames: number; seconds: number }>();
  for (const p of parts) {
    if (p.state !== 'done' || p.takenOver || !p.worker) continue;
    const share = shares.get(p.worker) ?? { worker: p.worker, frames: 0, seconds: 0 };
    share.frames++;
    share.seconds += p.seconds ?? 0;
    shares.set(p.worker, share);
  }
  return { ...summary, parts, shares: [...shares.values()].sort((a, b) => b.frames - a.frames) };
}

/** Pauses, goes on, cancels, tries again what failed, puts in another order, or wants a frame at once. */
export async function changeRender(db: Database, id: string, change: RenderChange): Promise<void> {
  const known = await db.execute(sql`select 1 from renders where id = ${id}`);
  if (known.rows.length === 0) throw gone();
  const { paused, cancelled, retry, priority, before, first } = change;
  if (paused !== undefined) await db.execute(sql`update renders set paused = ${paused} where id = ${id}`);
  if (priority !== undefined) await db.execute(sql`update renders set priority = ${priority} where id = ${id}`);
  if (before !== undefined) await putBefore(db, id, before);
  if (first !== undefined)
    await db.execute(sql`
      update render_parts set rank = (select min(rank) - 1 from render_parts where render_id = ${id})
      where render_id = ${id} and index = ${first} and state = 'waiting'`);
  if (cancelled)
    await db.transaction(async (tx) => {
      await tx.execute(sql`
        update renders set state = 'cancelled', finished_at = now() where id = ${id} and state in ('frames', 'files')`);
      await tx.execute(sql`
        update render_parts set state = 'waiting', lease = null where render_id = ${id} and state = 'leased'`);
      await tx.execute(sql`
        update render_files set state = 'waiting', lease = null where render_id = ${id} and state = 'leased'`);
    });
  if (retry) {
    await db.transaction(async (tx) => {
      await tx.execute(sql`
        update render_parts set state = 'waiting', tries = 0, message = null where render_id = ${id} and state = 'failed'`);
      await tx.execute(sql`
        update render_files set state = 'waiting', tries = 0, message = null where render_id = ${id} and state = 'failed'`);
      await tx.execute(sql`
        update renders set state = 'frames', message = null, finished_at = null
        where id = ${id} and state in ('failed', 'cancelled')`);
    });
    await settleFrames(db, id);
  }
}

/** Puts a render before another of the same priority, or to the end. */
async function putBefore(db: Database, id: string, before: string | null): Promise<void> {
  await db.execute(
    before === null
      ? sql`update renders set place = (select max(place) + 1 from renders) where id = ${id}`
      : sql`update renders set
              priority = (select priority from renders where id = ${before}),
              place = (
                select (b.place + coalesce((select max(place) from renders where place < b.place and id <> ${id}), b.place - 1)) / 2
                from renders b where b.id = ${before})
            where id = ${id} and exists (select 1 from renders where id = ${before})`,
  );
}

/** Takes a render away with its files, and frames that no other has. Gives the bytes that are free by it. */
export async function clearRender(db: Database, id: string): Promise<void> {
  const files = await db.execute<{ id: string }>(sql`select id from render_files where render_id = ${id}`);
  const { rowCount } = await db.execute(sql`delete from renders where id = ${id}`);
  if (rowCount === 0) throw gone();
  await removeFiles(files.rows.map((f) => f.id));
  await clearLoose(db);
}

/** Takes away pictures of frames that no render has any more. */
export async function clearLoose(db: Database): Promise<number> {
  const store = frameImageStore();
  const { rows } = await db.execute<{ fingerprint: string; sheets: Partial<Record<FrameImageName, unknown>> }>(sql`
    delete from render_sheets s
    where not exists (select 1 from render_parts p where p.fingerprint = s.fingerprint)
    returning fingerprint, sheets`);
  for (const { fingerprint, sheets } of rows)
    for (const sheet of Object.keys(sheets) as FrameImageName[]) await store.remove(fingerprint, sheet);
  await clearUnknown(db, store);
  await db.execute(sql`
    delete from render_workers w where seen_at < now() - interval '30 days'
      and not exists (select 1 from render_parts p where p.worker = w.id)
      and not exists (select 1 from render_checks c where c.worker = w.id)`);
  return rows.length;
}

/** Milliseconds for which a file that no row names is left: its frame may just be on its way to be finished. */
const YOUNG = 86_400_000;

/**
 * Takes away files in the folder of sheets that are ours by their name and that no row names: of workers that died
 * before their frame was accepted, and those that were being written.
 */
async function clearUnknown(db: Database, store: FrameImageStore): Promise<void> {
  for await (const files of store.listed()) {
    const prints = sql.param([...new Set(files.map((f) => f.fingerprint))]);
    const { rows } = await db.execute<{ fingerprint: string; sheets: Partial<Record<FrameImageName, unknown>> }>(
      sql`select fingerprint, sheets from render_sheets where fingerprint = any(${prints}::text[])`,
    );
    const known = new Map(rows.map((r) => [r.fingerprint, r.sheets]));
    for (const { file, fingerprint, sheet, modified } of files)
      if (Date.now() - modified > YOUNG && !(sheet && known.get(fingerprint)?.[sheet])) await rm(file, { force: true });
  }
}

/** Days that finished renders are kept. */
const keepDays = () => Number(process.env.MAYPOLE_KEEP_RENDERS_DAYS) || 90;

/** Takes away renders that ended long ago, and estimates after a day. Gives how many. */
export async function clearOld(db: Database): Promise<number> {
  const { rows } = await db.execute<{ id: string }>(sql`
    select id from renders
    where state in ('done', 'failed', 'cancelled')
      and finished_at < now() - make_interval(days => case when estimate then 1 else ${keepDays()} end)`);
  for (const { id } of rows) await clearRender(db, id);
  return rows.length;
}
