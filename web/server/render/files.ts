import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { Item } from '@maypole/core/piece/piece';
import { deliverOutput, frameImageOf } from '@maypole/render/deliver';
import { frameImageFault } from '@maypole/render/frame/check-frame-image';
import { pieceFrom } from '@maypole/render/work/piece-from';
import { sql } from 'drizzle-orm';
import { carried } from '../pieces/bundle';
import type { Database } from '../data/db';
import { keptFrameImages } from './queue';
import { assertDisk, filesFolder, isFull, frameImageStore, waitsForRoom } from './room';
import { leaseSeconds } from './worker';

interface FileWork {
  readonly id: string;
  readonly render: string;
  readonly item: Item;
  readonly base: string;
  readonly lease: string;
}

/** Attempts at an output whose worker ends. */
const TRIES = 5;

/** Claims the next output of a render whose frames are all there. Outputs are made where the frames are. */
async function claimFile(db: Database): Promise<FileWork | undefined> {
  await db.execute(sql`
    update render_files set state = case when tries >= ${TRIES} then 'failed' else 'waiting' end, lease = null,
      message = case when tries >= ${TRIES} then 'Whoever made it ended, several times.' else null end
    where state = 'leased' and lease_until < now()`);
  const lease = randomUUID();
  const { rows } = await db.execute<{ id: string; render_id: string; item: Item; base: string }>(sql`
    with next as (
      select f.id from render_files f join renders r on r.id = f.render_id
      where r.state = 'files' and not r.paused and f.state = 'waiting'
      order by r.priority desc, r.place, f.position
      limit 1 for update of f skip locked
    )
    update render_files f set state = 'leased', lease = ${lease}, tries = tries + 1, share = 0, message = null,
           lease_until = now() + make_interval(secs => ${leaseSeconds()})
    from next where f.id = next.id
    returning f.id, f.render_id, f.item, f.base`);
  const [row] = rows;
  return row && { id: row.id, render: row.render_id, item: row.item, base: row.base, lease };
}

/** Makes one output; false if there is none to make. */
export async function nextFile(db: Database): Promise<boolean> {
  const work = (await waitsForRoom()) ? undefined : await claimFile(db);
  if (!work) {
    await settleFiles(db);
    return false;
  }
  const ended = new AbortController();
  let share = 0;
  const renewing = setInterval(() => {
    void db
      .execute(
        sql`update render_files f set share = ${share}, lease_until = now() + make_interval(secs => ${leaseSeconds()})
            from renders r where r.id = f.render_id and r.state = 'files' and f.lease = ${work.lease}`,
      )
      .then(
        ({ rowCount }) => rowCount === 0 && ended.abort(new Error('It was cancelled.')),
        () => undefined,
      );
  }, 2000);
  try {
    await make(db, work, ended.signal, (s) => (share = s));
  } catch (error) {
    if (await makeAgainWhatIsBroken(db, work).catch(() => false)) return true;
    const message = error instanceof Error ? error.message : String(error);
    // What only lacked room is retried a few times once there is some.
    await db.execute(sql`
      update render_files set state = case when ${isFull(error)} and tries < ${TRIES} then 'waiting' else 'failed' end,
             lease = null, message = ${message.slice(0, 500)}
      where lease = ${work.lease}`);
  } finally {
    clearInterval(renewing);
  }
  await settleFiles(db);
  return true;
}

async function make(
  db: Database,
  work: FileWork,
  signal: AbortSignal,
  onShare: (share: number) => void,
): Promise<void> {
  const { rows } = await db.execute<{
    source: string;
    frames: number[];
    pattern: string;
    revision: number;
    created_at: Date;
    size: { width: number; height: number };
  }>(sql`
    select r.source, r.frames, r.pattern, r.revision, r.created_at, f.size
    from renders r join render_files f on f.render_id = r.id where f.id = ${work.id}`);
  const [render] = rows;
  const prints = (
    await db.execute<{ fingerprint: string }>(
      sql`select fingerprint from render_parts where render_id = ${work.render} order by index`,
    )
  ).rows.map((p) => p.fingerprint);
  const sheet = frameImageOf(work.item);
  if (sheet && !(await allIntact(db, work.render, prints, sheet))) return;
  await assertDisk(0);
  let text = '';
  for await (const part of carried(db, render.source)) text += part;
  const piece = await pieceFrom(text);
  const store = frameImageStore();
  const folder = filesFolder(work.id);
  const { files, report } = await deliverOutput({
    item: work.item,
    piece,
    size: render.size,
    frames: render.frames,
    sheet: (name, index) => store.file(prints[index], name),
    folder,
    base: work.base,
    pattern: render.pattern,
    named: {
      piece: piece.name,
      ...render.size,
      fps: piece.loop.fps,
      frames: piece.loop.frames,
      revision: render.revision,
      date: new Date(render.created_at),
    },
    signal,
    onShare,
  });
  await db.execute(sql`
    update render_files set state = 'done', lease = null, share = 1, files = ${JSON.stringify(files)}::jsonb,
           bytes = ${files.reduce((n, f) => n + f.bytes, 0)}, report = ${JSON.stringify(report)}::jsonb
    where lease = ${work.lease}`);
}

/**
 * An output failed: if a frame image is as it was stored and yet cannot be decoded, it is deleted and its frame made
 * again. False if all are sound.
 */
async function makeAgainWhatIsBroken(db: Database, { id, render, item }: FileWork): Promise<boolean> {
  const sheet = frameImageOf(item);
  if (!sheet) return false;
  const { rows } = await db.execute<{ fingerprint: string; order: FrameOrder }>(sql`
    select distinct p.fingerprint, r.frame_order as order
    from render_parts p join renders r on r.id = p.render_id where p.render_id = ${render}`);
  const broken: string[] = [];
  for (const { fingerprint, order } of rows)
    if (await frameImageFault(frameImageStore().file(fingerprint, sheet), sheet, order)) broken.push(fingerprint);
  if (broken.length === 0) return false;
  await makeAgain(db, render, broken, sheet);
  await db.execute(sql`update render_files set tries = 0, message = null where id = ${id}`);
  return true;
}

/** Checks whether all frame images are as they were stored; frames of others are made again, and nothing else. */
async function allIntact(
  db: Database,
  render: string,
  prints: readonly string[],
  sheet: FrameImageName,
): Promise<boolean> {
  const store = frameImageStore();
  const lost: string[] = [];
  for (const print of prints) {
    const kept = await keptFrameImages(db, print);
    if (!(await store.intact(print, sheet, kept?.[sheet]))) lost.push(print);
  }
  if (lost.length > 0) await makeAgain(db, render, lost, sheet);
  return lost.length === 0;
}

/** Drops frame images, and has their frames made again. */
async function makeAgain(db: Database, render: string, lost: readonly string[], sheet: FrameImageName): Promise<void> {
  const store = frameImageStore();
  const names = new Map<string, readonly FrameImageName[]>();
  for (const print of lost)
    names.set(print, [
      ...new Set([sheet, ...(Object.keys((await keptFrameImages(db, print)) ?? {}) as FrameImageName[])]),
    ]);
  const all = sql.param(lost);
  await db.transaction(async (tx) => {
    await tx.execute(sql`delete from render_sheets where fingerprint = any(${all}::text[])`);
    await tx.execute(sql`
      update render_parts set state = 'waiting', taken_over = false, tries = 0
      where render_id = ${render} and fingerprint = any(${all}::text[])`);
    await tx.execute(
      sql`update render_files set state = 'waiting', lease = null where render_id = ${render} and state <> 'done'`,
    );
    await tx.execute(sql`update renders set state = 'frames' where id = ${render}`);
  });
  // No row names them any more, so that upkeep would not find them later.
  for (const [print, all] of names) for (const name of all) await store.remove(print, name);
}

/** Ends renders whose outputs are all made, or cannot be. */
async function settleFiles(db: Database): Promise<void> {
  await db.execute(sql`
    update renders r set
      state = case when n.failed > 0 then 'failed' else 'done' end,
      message = case when n.failed > 0 then n.message else null end,
      finished_at = now()
    from (
      select render_id, count(*) filter (where state in ('waiting', 'leased')) as open,
             count(*) filter (where state = 'failed') as failed, min(message) as message
      from render_files group by render_id
    ) n
    where r.state = 'files' and n.render_id = r.id and n.open = 0`);
}

/** Deletes files of outputs that no longer exist. */
export async function removeFiles(ids: readonly string[]): Promise<void> {
  for (const id of ids) if (existsSync(filesFolder(id))) await rm(filesFolder(id), { recursive: true, force: true });
}
