import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { newItem, newPiece, newRibbon, type Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import type { PartWork } from '@maypole/render/work/source';
import { sql } from 'drizzle-orm';
import { encode } from 'fast-png';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../data/db';
import { AppError } from '../http/app-error';
import { createPiece } from '../pieces/pieces';
import { beginAnew, createRender } from './create';
import { nextFile } from './files';
import { claimWork, failWork, finishWork, giveBackWork, renderOfLease, renewWork } from './leases';
import { awaitsCheck, claimCheck } from './made-again';
import { framePicture } from './pictures';
import { claimPart, failPart, finishPart, renewLease, takeBack } from './queue';
import { changeRender, clearRender, queueNow, renderNow, workersNow } from './renders';
import { filesFolder, isFull, frameImageStore } from './room';
import { sendFiles } from './send-files';
import type { Worker } from './worker';

const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
const before = process.env.MAYPOLE_RENDERS;
const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-renders-'));
beforeAll(() => {
  process.env.MAYPOLE_RENDERS = folder;
});
afterAll(async () => {
  process.env.MAYPOLE_RENDERS = before;
  rmSync(folder, { recursive: true, force: true });
  await db.$client.end();
});
const made: string[] = [];
afterEach(async () => {
  for (const id of made.splice(0)) await clearRender(db, id).catch(() => undefined);
});

const worker = (name = 'A', more: Partial<Worker> = {}): Worker => ({
  id: `test-${name}-00000000`,
  name,
  light: 'true',
  threads: 1,
  maker: RENDERER_VERSION,
  by: 'test',
  ...more,
});

async function render(frames = 6, change: (p: Piece) => Piece = (p) => p, estimate = false): Promise<string> {
  const fresh = newPiece(`Render ${randomUUID()}`);
  const piece = change({
    ...fresh,
    loop: { frames, fps: 25 },
    format: { width: 16, height: 16 },
    render: { ...fresh.render, values: { ...fresh.render.values, light: 'true', samples: 1 } },
    outputs: [newItem(outputs.get('png')), newItem(outputs.get('mp4'))],
    ribbons: [newRibbon('box', 0)],
  });
  const { id, revision } = await createPiece(db, writePiece(piece));
  const r = await createRender(db, { piece: id, revision, estimate, by: 'test' });
  made.push(r);
  return r;
}

/** A frame's picture, by a formula. */
const picture = (frame: number) =>
  encode({
    width: 16,
    height: 16,
    channels: 4,
    depth: 16,
    data: Uint16Array.from({ length: 1024 }, (_, i) => (i % 4 === 3 ? 65_535 : (500 * frame + 40 * i) % 65_535)),
  });

async function finish(work: PartWork): Promise<void> {
  const kept = await frameImageStore().put(work.fingerprint, 'solid', picture(work.frame));
  await finishPart(db, work.lease, { solid: kept }, { seconds: 2, memory: 100 });
}
async function finishAll(name = 'A'): Promise<number> {
  let n = 0;
  for (let work; (work = await claimPart(db, worker(name))); n++) await finish(work);
  return n;
}
const stateOf = async (id: string) => (await renderNow(db, id)).state;

describe('the queue of frames', () => {
  it('gives each frame once, those far apart first, and goes on to the files when all are there', async () => {
    const id = await render(6);
    const first = (await claimPart(db, worker()))!;
    const second = (await claimPart(db, worker('B')))!;
    expect([first.frame, second.frame]).toEqual([0, 4]);
    expect(first.sheets).toEqual(['solid']);
    await finish(first);
    await finish(second);
    expect(await finishAll()).toBe(4);
    expect(await stateOf(id)).toBe('files');
    const detail = await renderNow(db, id);
    expect(detail.parts.map((p) => [p.index, p.frame, p.state])).toEqual([0, 1, 2, 3, 4, 5].map((f) => [f, f, 'done']));
    expect(detail.shares).toEqual([
      { worker: 'A', frames: 5, seconds: 10 },
      { worker: 'B', frames: 1, seconds: 2 },
    ]);
    expect(detail.memory).toBe(100);
  });
  it('gives no frame twice to workers that ask at once', async () => {
    await render(60);
    const all: number[] = [];
    await Promise.all(
      Array.from({ length: 6 }, async (_, w) => {
        for (let work; (work = await claimPart(db, worker(`W${w}`)));) {
          all.push(work.frame);
          await finish(work);
        }
      }),
    );
    expect([...all].sort((a, b) => a - b)).toEqual(Array.from({ length: 60 }, (_, i) => i));
  });
  it('gives a frame to another when its worker falls silent, and takes nothing of the first then', async () => {
    const id = await render(1);
    const first = (await claimPart(db, worker()))!;
    expect(await claimPart(db, worker('B'))).toBeUndefined();
    expect(await renewLease(db, first.lease)).toBe(true);
    await db.execute(sql`update render_parts set lease_until = now() - interval '1 second' where render_id = ${id}`);
    const second = (await claimPart(db, worker('B')))!;
    expect(second.frame).toBe(first.frame);
    expect(await renewLease(db, first.lease)).toBe(false);
    await expect(finish(first)).rejects.toMatchObject({ status: 409 });
    await finish(second);
    expect((await renderNow(db, id)).shares.map((s) => s.worker)).toEqual(['B']);
  });
  it('has a frame that is given back for the next at once, and this was no try', async () => {
    const id = await render(1);
    for (let i = 0; i < 5; i++) await giveBackWork(db, (await claimWork(db, worker()))!.lease);
    const again = (await claimWork(db, worker('B')))!;
    const { rows } = await db.execute(sql`select tries from render_parts where render_id = ${id}`);
    expect(rows).toEqual([{ tries: 1 }]);
    // What comes too late gives nothing back.
    await finish(again);
    await giveBackWork(db, again.lease);
    expect((await renderNow(db, id)).parts[0].state).toBe('done');
  });
  it('tells of a worker of another version, which is given nothing', async () => {
    await render(1);
    await expect(claimWork(db, { ...worker('Old'), maker: 'another' })).rejects.toMatchObject({ status: 409 });
    expect((await workersNow(db)).find((w) => w.name === 'Old')).toMatchObject({ other: true });
    await finishAll('New');
    expect((await workersNow(db)).find((w) => w.name === 'New')).toMatchObject({ other: false });
  });
  it('gives up a frame over which three workers fell silent, and says so; it can be tried again', async () => {
    const id = await render(2);
    const other = (await claimPart(db, worker()))!;
    await finish(other);
    for (let i = 0; i < 3; i++) {
      expect(await claimPart(db, worker())).toBeDefined();
      await db.execute(sql`update render_parts set lease_until = now() - interval '1 second' where state = 'leased'`);
      await takeBack(db);
    }
    expect(await claimPart(db, worker())).toBeUndefined();
    const { state } = await renderNow(db, id);
    expect(state).toBe('failed');
    expect((await renderNow(db, id)).message).toContain('1 frame could not be made: 3 workers fell silent over it');
    await changeRender(db, id, { retry: true });
    expect(await finishAll()).toBe(1);
    expect(await stateOf(id)).toBe('files');
  });
  it('tells why a frame could not be made, and tries it elsewhere unless that is of no use', async () => {
    const id = await render(1);
    const first = (await claimPart(db, worker()))!;
    await failPart(db, first.lease, 'The disk was full.', false);
    expect(await stateOf(id)).toBe('frames');
    const second = (await claimPart(db, worker('B')))!;
    await failPart(db, second.lease, 'The scene is too large.', true);
    const { state, message } = await renderNow(db, id);
    expect([state, message]).toEqual(['failed', '1 frame could not be made: The scene is too large.']);
  });
  it('takes no frame that is not whole', async () => {
    await render(1);
    const work = (await claimPart(db, worker()))!;
    await expect(finishPart(db, work.lease, {}, { seconds: 1, memory: 1 })).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('solid of it is missing') as string,
    });
  });
  it('gives nothing to a worker that makes other pictures, and says which', async () => {
    await render(1);
    await expect(claimPart(db, worker('Old', { maker: '6-abc' }))).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('6-abc') as string,
    });
    expect(await claimPart(db, worker('Quick', { light: 'quick' }))).toBeUndefined();
  });
});

describe('frames that are made again', () => {
  const made = (name: string, by = 'test') => ({ name, by });
  const digest = (byte: string) => ({ sha256: byte.repeat(64), bytes: 9 });
  const keptOf = async (work: PartWork) => ({
    solid: (
      await db.execute<{ sheets: { solid: { sha256: string; bytes: number } } }>(
        sql`select sheets from render_sheets where fingerprint = ${work.fingerprint}`,
      )
    ).rows[0].sheets.solid,
  });
  const figures = { seconds: 1, memory: 1 };

  it('are one of 32, by another machine than the first, after those that are wanted; the same bytes are counted', async () => {
    const id = await render(40);
    expect(await finishAll('A')).toBe(40);
    expect([await awaitsCheck(db, made('A')), await awaitsCheck(db, made('B'))]).toEqual([false, true]);
    // Another process of the same machine is no other machine.
    expect(await claimWork(db, { ...worker('A'), id: 'test-A-11111111' })).toBeUndefined();
    const next = await render(1);
    const wanted = (await claimWork(db, worker('B')))!;
    expect([wanted.render, wanted.again]).toEqual([next, undefined]);
    await finish(wanted);
    const again: PartWork[] = [];
    for (let work; (work = await claimWork(db, worker('B')));) {
      again.push(work);
      expect(await renderOfLease(db, work.lease)).toBe(id);
      expect(await renewWork(db, work.lease)).toBe(true);
      await finishWork(db, work.lease, await keptOf(work), figures);
      expect(await renewWork(db, work.lease)).toBe(false);
    }
    expect(again.map((w) => [w.render, w.again])).toEqual([
      [id, true],
      [id, true],
    ]);
    expect(again[0].frame).toBe(0);
    const detail = await renderNow(db, id);
    expect(detail.again).toEqual({ same: 2, other: [] });
    // Nothing of it counts as work on the render.
    expect(detail.shares.map((s) => [s.worker, s.frames])).toEqual([['A', 40]]);
    // That of B waits for A in its turn.
    expect(await awaitsCheck(db, made('A'))).toBe(true);
  });
  it('are the same where zlib of another processor packed the same picture otherwise', async () => {
    const id = await render(1);
    const first = (await claimWork(db, worker('A')))!;
    await finishWork(db, first.lease, { solid: { ...digest('1'), content: 'c'.repeat(64) } }, figures);
    const second = (await claimWork(db, worker('B')))!;
    await finishWork(db, second.lease, { solid: { ...digest('2'), content: 'c'.repeat(64) } }, figures);
    expect((await renderNow(db, id)).again).toEqual({ same: 1, other: [] });
  });
  it('and come out different are told with both names; what was first is kept', async () => {
    const id = await render(2);
    await finishAll('A');
    const work = (await claimWork(db, worker('B')))!;
    const kept = await keptOf(work);
    await finishWork(db, work.lease, { solid: digest('0') }, figures);
    expect((await renderNow(db, id)).again).toEqual({ same: 0, other: [{ frame: 0, first: 'A', again: 'B' }] });
    expect(await keptOf(work)).toEqual(kept);
    expect(await stateOf(id)).toBe('files');
    await expect(finishWork(db, work.lease, kept, figures)).rejects.toMatchObject({ status: 409 });
  });
  it('are given to others when a machine falls silent over them or fails, some times, and do no harm to the render', async () => {
    const id = await render(2);
    await finishAll('A');
    const silent = (await claimWork(db, worker('B')))!;
    expect(await claimWork(db, worker('C'))).toBeUndefined();
    await db.execute(sql`update render_checks set lease_until = now() - interval '1 second' where render_id = ${id}`);
    const second = (await claimWork(db, worker('C')))!;
    expect(await renewWork(db, silent.lease)).toBe(false);
    await failWork(db, second.lease, 'The disk was full.', true);
    const third = (await claimWork(db, worker('D')))!;
    await failWork(db, third.lease, 'No luck.', false);
    expect(await claimWork(db, worker('E'))).toBeUndefined();
    const { again, failed, state } = await renderNow(db, id);
    expect([again, failed, state]).toEqual([{ same: 0, other: [] }, 0, 'files']);
  });
  it('are none of estimates, of quick light, of what is paused, nor of renders that ended long ago', async () => {
    const estimate = await render(40, (p) => p, true);
    await finishAll('A');
    expect((await db.execute(sql`select 1 from render_checks where render_id = ${estimate}`)).rows).toEqual([]);
    const id = await render(2);
    await finishAll('A');
    expect(await claimCheck(db, worker('Quick', { light: 'quick' }))).toBeUndefined();
    await changeRender(db, id, { paused: true });
    expect(await awaitsCheck(db, made('B'))).toBe(false);
    await changeRender(db, id, { paused: false });
    expect(await awaitsCheck(db, made('B'))).toBe(true);
    await db.execute(sql`update renders set state = 'done', finished_at = now() - interval '2 hours' where id = ${id}`);
    expect(await awaitsCheck(db, made('B'))).toBe(false);
  });
});

describe('renders that were under way when Maypole was brought to another version', () => {
  it('are given to nobody as they are, and begun anew: none is of two versions', async () => {
    const id = await render(3);
    await finish((await claimPart(db, worker()))!);
    const old = await fingerprint(id, 0);
    await db.execute(sql`update renders set maker = '7-old' where id = ${id}`);
    await db.execute(sql`update render_parts set fingerprint = 'old-' || fingerprint where render_id = ${id}`);
    await db.execute(sql`update render_sheets set fingerprint = 'old-' || fingerprint where fingerprint = ${old}`);
    expect(await claimPart(db, worker())).toBeUndefined();
    expect(await beginAnew(db)).toBe(1);
    expect((await renderNow(db, id)).done).toBe(0);
    expect(await fingerprint(id, 0)).toBe(old);
    expect(await finishAll()).toBe(3);
    expect(await beginAnew(db)).toBe(0);
    expect(await stateOf(id)).toBe('files');
  });
});

describe('renders in the queue', () => {
  it('go in their order, and priority goes before it', async () => {
    const [a, b, c] = [await render(2), await render(2), await render(2)];
    const next = async () => (await claimPart(db, worker()))!.render;
    expect(await next()).toBe(a);
    await changeRender(db, c, { before: a });
    expect(await next()).toBe(c);
    await changeRender(db, b, { priority: 3 });
    expect(await next()).toBe(b);
    expect((await queueNow(db)).renders.slice(0, 3).map((r) => r.id)).toEqual([b, c, a]);
  });
  it('rest while they are paused, and give a frame that is wanted before others', async () => {
    const id = await render(8);
    await changeRender(db, id, { paused: true });
    expect(await claimPart(db, worker())).toBeUndefined();
    await changeRender(db, id, { paused: false, first: 3 });
    expect((await claimPart(db, worker()))!.frame).toBe(3);
  });
  it('that are cancelled give back what is worked on, keep their frames, and can go on', async () => {
    const id = await render(3);
    await finish((await claimPart(db, worker()))!);
    const work = (await claimPart(db, worker()))!;
    await changeRender(db, id, { cancelled: true });
    expect(await renewLease(db, work.lease)).toBe(false);
    expect(await claimPart(db, worker())).toBeUndefined();
    expect((await renderNow(db, id)).done).toBe(1);
    await changeRender(db, id, { retry: true });
    expect(await finishAll()).toBe(2);
  });
  it('take over frames that are there already, and only those', async () => {
    let shared!: Piece;
    const first = await render(4, (p) => (shared = p));
    expect(await finishAll()).toBe(4);
    // Another name is another revision, and the same pictures.
    const again = await render(4, () => ({ ...shared, name: 'Renamed' }));
    expect((await renderNow(db, again)).takenOver).toBe(4);
    expect(await stateOf(again)).toBe('files');
    const other = await render(4, () => ({ ...shared, format: { width: 18, height: 16 } }));
    expect((await renderNow(db, other)).takenOver).toBe(0);
    // Frames of the first are kept for the second.
    await clearRender(db, first);
    made.splice(made.indexOf(first), 1);
    expect(existsSync(frameImageStore().file(await fingerprint(again, 0), 'solid'))).toBe(true);
    const print = await fingerprint(again, 0);
    await clearRender(db, again);
    made.splice(made.indexOf(again), 1);
    expect(existsSync(frameImageStore().file(print, 'solid'))).toBe(false);
  });
  it('of a sample make a few frames, before everything else', async () => {
    await render(40);
    const id = await render(40, (p) => p, true);
    const { frames, estimate } = await renderNow(db, id);
    expect([frames, estimate]).toEqual([3, true]);
    expect((await claimPart(db, worker()))!.render).toBe(id);
  });
  it('of nothing, or of what cannot be made, are refused in a sentence', async () => {
    await expect(render(2, (p) => ({ ...p, outputs: [] }))).rejects.toMatchObject({ status: 422 });
    await expect(render(2, (p) => ({ ...p, format: { width: 17, height: 16 } }))).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('use 18 × 16') as string,
    });
    await expect(renderNow(db, randomUUID())).rejects.toMatchObject({ status: 404 });
  });
});

const fingerprint = async (id: string, index: number) =>
  (
    await db.execute<{ fingerprint: string }>(
      sql`select fingerprint from render_parts where render_id = ${id} and index = ${index}`,
    )
  ).rows[0].fingerprint;

describe('files of a render', () => {
  it('are made of its frames, read back, and sent: several of them in one zip', async () => {
    const id = await render(6);
    await finishAll();
    expect([await nextFile(db), await nextFile(db), await nextFile(db)]).toEqual([true, true, false]);
    const { state, files } = await renderNow(db, id);
    expect(state).toBe('done');
    expect(files.map((f) => [f.kind, f.state, f.count])).toEqual([
      ['png', 'done', 6],
      ['mp4', 'done', 1],
    ]);
    expect(files.every((f) => f.report !== null)).toBe(true);
    const zip = Buffer.from(await (await sendFiles(db, id, files[0].id)).arrayBuffer());
    expect(zip.readUInt32LE(0)).toBe(0x04034b50);
    expect(zip.toString('latin1').match(/-0005\.png/g)!.length).toBeGreaterThanOrEqual(2);
    const movie = await sendFiles(db, id, files[1].id);
    expect(movie.headers.get('content-type')).toBe('video/mp4');
    expect(movie.headers.get('content-disposition')).toContain('-16x16.mp4"');
    expect(Number(movie.headers.get('content-length'))).toBe(files[1].bytes);
    await movie.body!.cancel();
    const small = await framePicture(db, id, 2, 8);
    expect([small.type, Buffer.from(small.bytes).toString('latin1', 8, 12)]).toEqual(['image/webp', 'WEBP']);
    await clearRender(db, id);
    made.splice(made.indexOf(id), 1);
    for (const f of files) expect(existsSync(filesFolder(f.id))).toBe(false);
  });
  it('are not made of frames that are lost or damaged: those are made again, and no other', async () => {
    const id = await render(5);
    await finishAll();
    const store = frameImageStore();
    rmSync(store.file(await fingerprint(id, 1), 'solid'));
    writeFileSync(store.file(await fingerprint(id, 3), 'solid'), 'damaged');
    await nextFile(db);
    expect(await stateOf(id)).toBe('frames');
    const again: number[] = [];
    for (let work; (work = await claimPart(db, worker()));) {
      again.push(work.frame);
      await finish(work);
    }
    expect(again.sort()).toEqual([1, 3]);
    while (await nextFile(db));
    expect(await stateOf(id)).toBe('done');
  });
  it('heal by themselves where a sheet is as it was kept, and yet no picture', async () => {
    const id = await render(4);
    // A PNG's head with nothing sound behind it, kept with its own digest, as an older Maypole took it from a worker.
    const broken = Buffer.concat([picture(2).subarray(0, 60), Buffer.alloc(200, 7)]);
    for (let work; (work = await claimPart(db, worker()));) {
      if (work.frame !== 2) await finish(work);
      else {
        const kept = await frameImageStore().put(work.fingerprint, 'solid', broken);
        await finishPart(db, work.lease, { solid: kept }, { seconds: 2, memory: 100 });
      }
    }
    expect(await stateOf(id)).toBe('files');
    const print = await fingerprint(id, 2);
    expect(await nextFile(db)).toBe(true);
    expect(await stateOf(id)).toBe('frames');
    expect(existsSync(frameImageStore().file(print, 'solid'))).toBe(false);
    const again: number[] = [];
    for (let work; (work = await claimPart(db, worker()));) {
      again.push(work.frame);
      await finish(work);
    }
    expect(again).toEqual([2]);
    while (await nextFile(db));
    expect(await stateOf(id)).toBe('done');
    expect((await renderNow(db, id)).files.map((f) => f.message)).toEqual([null, null]);
  });
});

describe('a disk that is full', () => {
  it('has nothing begun, says so, and all goes on once there is room', async () => {
    const id = await render(1, (p) => ({ ...p, outputs: [newItem(outputs.get('png'))] }));
    process.env.MAYPOLE_LEAVE_FREE_GIGABYTES = '1000000';
    try {
      expect(await claimWork(db, worker())).toBeUndefined();
      expect((await queueNow(db)).waits).toMatch(
        /^Renders wait: only [\d.]+ GB are free .* 1000000 GB stay free\. They go on/,
      );
      await expect(createRender(db, { piece: id, revision: 1, estimate: false, by: 'test' })).rejects.toThrow();
    } finally {
      delete process.env.MAYPOLE_LEAVE_FREE_GIGABYTES;
    }
    expect((await queueNow(db)).waits).toBeNull();
    const work = (await claimWork(db, worker()))!;
    await finish(work);
    // It becomes full again before the files are made.
    process.env.MAYPOLE_LEAVE_FREE_GIGABYTES = '1000000';
    try {
      expect(await nextFile(db)).toBe(false);
      expect((await renderNow(db, id)).files.map((f) => f.state)).toEqual(['waiting']);
    } finally {
      delete process.env.MAYPOLE_LEAVE_FREE_GIGABYTES;
    }
    while (await nextFile(db));
    expect((await renderNow(db, id)).state).toBe('done');
  });
  it('is told from other trouble', () => {
    expect(isFull(new AppError(507, 'Only 1 GB is free.'))).toBe(true);
    expect(isFull(new AppError(409, 'Not yours.'))).toBe(false);
    expect(isFull(Object.assign(new Error('write'), { code: 'ENOSPC' }))).toBe(true);
    expect(isFull(new Error('av_interleaved_write_frame(): No space left on device'))).toBe(true);
    expect(isFull(new Error('It was cancelled.'))).toBe(false);
  });
});
