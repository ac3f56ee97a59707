import { frameOrder, spreadOut } from '@maypole/core/output/frame-order';
import { deliveryFault } from '@maypole/core/piece/delivery-fault';
import { deliveredSize, framesWanted, renderSettings } from '@maypole/core/output/render-settings';
import type { Item, Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { basesOf } from '@maypole/core/output/bases';
import { frameImagesFor } from '@maypole/render/deliver';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import { frameFingerprints } from '@maypole/render/frame/fingerprint';
import { sql } from 'drizzle-orm';
import { holdCount, type Database } from '../data/db';
import { AppError } from '../http/app-error';
import { loadRevision } from '../pieces/pieces';
import { settleFrames } from './queue';
import { assertDisk } from './room';
import { renderFiles, renders } from './tables';

/** Sample frames by which an estimate is made. */
const SAMPLE = 3;
/** Most unfinished renders. */
const MOST_OPEN = 500;

export interface RenderAsked {
  readonly piece: string;
  readonly revision: number;
  readonly estimate: boolean;
  readonly by: string;
}

/** Queues a render of a revision and returns its number. Existing frames are reused. */
export async function createRender(db: Database, { piece: id, revision, estimate, by }: RenderAsked): Promise<string> {
  const { source } = await loadRevision(db, id, revision);
  const read = readPiece(source);
  if (!read.ok) throw new AppError(422, read.message);
  const { piece } = read;
  const fault = deliveryFault(piece);
  if (fault) throw new AppError(422, fault);
  await assertDisk(0);
  const settings = renderSettings(piece.render.values);
  const wanted = framesWanted(settings, piece.loop.frames);
  const frames = estimate
    ? spreadOut(wanted.length)
        .slice(0, SAMPLE)
        .map((i) => wanted[i])
        .sort((a, b) => a - b)
    : wanted;
  const items = piece.outputs.filter((o) => o.on);
  const order = frameOrder(settings, deliveredSize(piece));
  const fingerprints = frameFingerprints(piece, frames, order);
  const ranks = new Array<number>(frames.length);
  spreadOut(frames.length).forEach((place, rank) => (ranks[place] = rank));
  const render = await db.transaction(async (tx) => {
    await holdCount(tx, 'renders');
    const [{ open }] = (
      await tx.execute<{ open: string }>(sql`select count(*) as open from renders where state in ('frames', 'files')`)
    ).rows;
    if (Number(open) >= MOST_OPEN)
      throw new AppError(429, `${MOST_OPEN} renders are waiting already; let some of them end, or cancel them.`);
    const [{ place }] = (
      await tx.execute<{ place: number }>(sql`select coalesce(max(place), 0) + 1 as place from renders`)
    ).rows;
    const [row] = await tx
      .insert(renders)
      .values({
        pieceId: id,
        name: piece.name,
        revision,
        source,
        frames,
        loopFrames: piece.loop.frames,
        fps: piece.loop.fps,
        frameOrder: order,
        sheets: frameImagesFor(items),
        pattern: settings.name,
        light: settings.light,
        maker: RENDERER_VERSION,
        estimate,
        // Estimates go before what takes long.
        priority: estimate ? 9 : 0,
        place,
        madeBy: by,
      })
      .returning({ id: renders.id });
    await tx.execute(sql`
      insert into render_parts (render_id, index, rank, fingerprint)
      select ${row.id}::uuid, (t.n - 1)::int, t.rank, t.fingerprint
      from unnest(${sql.param(ranks)}::int[], ${sql.param(fingerprints)}::text[]) with ordinality as t(rank, fingerprint, n)`);
    await tx.insert(renderFiles).values(filesOf(row.id, piece, items, revision));
    return row.id;
  });
  await takeOver(db, render);
  await settleFrames(db, render);
  return render;
}

function filesOf(renderId: string, piece: Piece, items: readonly Item[], revision: number) {
  const { loop, name } = piece;
  const size = deliveredSize(piece);
  const { name: pattern } = renderSettings(piece.render.values);
  const named = { piece: name, ...size, fps: loop.fps, frames: loop.frames, revision, date: new Date() };
  const bases = basesOf(items, pattern, named);
  return items.map((item, position) => ({ renderId, position, item, base: bases[position], size }));
}

/**
 * Restarts the frames of renders that were under way when Maypole changed to another renderer version: a render never
 * mixes both. Returns how many.
 */
export async function beginAnew(db: Database): Promise<number> {
  const { rows } = await db.execute<{ id: string; source: string; frames: number[] }>(sql`
    select id, source, frames from renders where state = 'frames' and maker <> ${RENDERER_VERSION}`);
  for (const { id, source, frames } of rows) {
    const read = readPiece(source);
    if (!read.ok) {
      await db.execute(
        sql`update renders set state = 'failed', message = ${read.message}, finished_at = now() where id = ${id}`,
      );
      continue;
    }
    const { piece } = read;
    const order = frameOrder(renderSettings(piece.render.values), deliveredSize(piece));
    const fingerprints = frameFingerprints(piece, frames, order);
    await db.transaction(async (tx) => {
      await tx.execute(sql`
        update render_parts p
        set fingerprint = t.fingerprint, state = 'waiting', lease = null, tries = 0, taken_over = false, bytes = 0,
            seconds = null, message = null, done_at = null
        from unnest(${sql.param(fingerprints)}::text[]) with ordinality as t(fingerprint, n)
        where p.render_id = ${id} and p.index = t.n - 1`);
      await tx.execute(sql`update renders set maker = ${RENDERER_VERSION} where id = ${id}`);
    });
    await takeOver(db, id);
    await settleFrames(db, id);
  }
  return rows.length;
}

/** Reuses frames that exist already, of whichever render. */
async function takeOver(db: Database, render: string): Promise<void> {
  const { rows } = await db.execute<{ index: number; bytes: string }>(sql`
    select p.index,
           (select sum((s.sheets -> wanted ->> 'bytes')::bigint) from jsonb_array_elements_text(r.sheets) wanted) as bytes
    from render_parts p
    join renders r on r.id = p.render_id
    left join render_sheets s on s.fingerprint = p.fingerprint
    where p.render_id = ${render}
      and not exists (
        select 1 from jsonb_array_elements_text(r.sheets) wanted where s.sheets is null or not s.sheets ? wanted)`);
  if (rows.length === 0) return;
  await db.execute(sql`
    update render_parts p set state = 'done', taken_over = true, done_at = now(), bytes = t.bytes
    from unnest(${sql.param(rows.map((r) => r.index))}::int[], ${sql.param(rows.map((r) => Number(r.bytes)))}::bigint[])
      as t(index, bytes)
    where p.render_id = ${render} and p.index = t.index`);
}
