import { spawn } from 'node:child_process';
import { createServer, type Server } from 'node:http';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { outputs } from '@maypole/core/output/index';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import { newItem, newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { afterAll, describe, expect, it } from 'vitest';
import { decodePng } from './files/png';
import { FrameImageStore, sha256, writeWhole, type KeptFrameImage } from './frame/keep';
import { FrameWorker } from './work/frame-worker';
import { pieceFrom } from './work/piece-from';
import { Renewer } from './work/renewer';
import { Refused, renewAt } from './work/server-request';
import { ServerSource } from './work/server-source';
import type { PartWork, WorkSource } from './work/source';

const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-work-'));
const RENEW_SERVER = new URL('./work/renew-server.mjs', import.meta.url);
const servers: Server[] = [];
afterAll(() => {
  servers.forEach((s) => s.close());
  rmSync(folder, { recursive: true, force: true });
});

const source = writePiece({
  ...newPiece('Work'),
  loop: { frames: 4, fps: 25 },
  format: { width: 24, height: 16 },
  outputs: [newItem(outputs.get('png'))],
  ribbons: [newRibbon('box', 0)],
});
const part = (index: number, more: Partial<PartWork> = {}): PartWork => ({
  render: 'r',
  index,
  frame: index,
  fingerprint: `${index}`.repeat(64),
  order: { light: 'true', width: 24, height: 16, detail: 'final', samples: 1, error: 0, denoise: false },
  sheets: ['solid'],
  lease: `lease-${index}`,
  ...more,
});

/** Work out of a list, whose results are kept in memory. */
class ListSource implements WorkSource {
  readonly sheets = new Map<string, Uint8Array>();
  readonly told: string[] = [];
  pieces = 0;
  constructor(private readonly list: PartWork[]) {}
  claim = () => Promise.resolve(this.list.shift());
  piece = () => {
    this.pieces++;
    return Promise.resolve(source);
  };
  keep = () => () => undefined;
  giveBack = ({ index }: PartWork) => Promise.resolve(void this.told.push(`back ${index}`));
  put = (work: PartWork, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage> => {
    this.sheets.set(`${work.index}/${sheet}`, bytes);
    return Promise.resolve({ sha256: sha256(bytes), bytes: bytes.length });
  };
  done = (work: PartWork, sheets: object, { seconds, memory }: { seconds: number; memory: number }) => {
    this.told.push(`done ${work.index} ${Object.keys(sheets).join()} ${seconds > 0 && memory > 10}`);
    return Promise.resolve();
  };
  failed = (work: PartWork, message: string, forGood: boolean) => {
    this.told.push(`failed ${work.index} ${message} ${forGood}`);
    return Promise.resolve();
  };
}

describe('a worker', () => {
  it('makes the frames it is given, reads a document once, and ends its turn where there is none', async () => {
    const list = new ListSource([part(0), part(2, { sheets: ['solid', 'half'] })]);
    const worker = new FrameWorker(list, 1);
    expect([await worker.next(), await worker.next(), await worker.next()]).toEqual([true, true, false]);
    await worker.close();
    expect(list.told).toEqual(['done 0 solid true', 'done 2 solid,half true']);
    expect(list.pieces).toBe(1);
    const { width, height, data } = decodePng(list.sheets.get('0/solid')!);
    expect([width, height, data instanceof Uint16Array]).toEqual([24, 16, true]);
    expect(Buffer.from(list.sheets.get('2/half')!).readUInt32LE(0)).toBe(0x01312f76);
  });
  it('tells of a frame that it cannot make, and goes on with the next', async () => {
    const quick = part(1, {
      order: { light: 'quick', width: 8, height: 8, detail: 'final', look: 'shaded', subframes: 1 },
    });
    const list = new ListSource([quick, part(3)]);
    const worker = new FrameWorker(list, 1);
    await worker.next();
    await worker.next();
    await worker.close();
    expect(list.told).toEqual(['failed 1 This worker makes frames in true light alone. false', 'done 3 solid true']);
  });
  it('says of a document that cannot be read that nobody can', async () => {
    const list = new ListSource([part(0)]);
    list.piece = () => Promise.resolve('{"maypole":"piece","version":7}');
    const worker = new FrameWorker(list, 1);
    await worker.next();
    await worker.close();
    expect(list.told[0]).toMatch(/^failed 0 .+ true$/);
    await expect(pieceFrom('no document')).rejects.toMatchObject({ name: 'PieceTrouble' });
  });
});

/** A server that answers by a table, and notes what it was asked. */
async function serverOf(answers: Record<string, (body: Buffer) => { status: number; body?: unknown }>) {
  const asked: string[] = [];
  const server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (d: Buffer) => chunks.push(d));
    request.on('end', () => {
      const key = `${request.method} ${request.url}`;
      asked.push(`${key} ${request.headers.authorization}`);
      const { status, body } = answers[key]?.(Buffer.concat(chunks)) ?? {
        status: 404,
        body: { error: 'Nothing here.' },
      };
      response.writeHead(status, { 'Content-Type': 'application/json' });
      response.end(body === undefined ? undefined : JSON.stringify(body));
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const url = new URL(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  return {
    asked,
    url,
    source: new ServerSource(url, 'maypole_key', { id: 'machine-1234', name: 'Attic', threads: 2 }),
  };
}

describe('work of a server elsewhere', () => {
  it('is asked for with a key, and results are brought whole', async () => {
    const bytes = new Uint8Array(70_000).map((_, i) => i);
    let taken = Buffer.alloc(0) as Buffer;
    const { asked, source: from } = await serverOf({
      'POST /api/work/claim': (body) => {
        expect(JSON.parse(body.toString())).toMatchObject({
          id: 'machine-1234',
          name: 'Attic',
          light: 'true',
          threads: 2,
        });
        return { status: 200, body: part(1) };
      },
      'PUT /api/work/leases/lease-1/sheets/solid': (body) => {
        taken = body;
        return { status: 200, body: { sha256: sha256(body), bytes: body.length } };
      },
      'DELETE /api/work/leases/lease-1': () => ({ status: 204 }),
      'POST /api/work/leases/lease-1/done': () => ({ status: 204 }),
    });
    const work = (await from.claim())!;
    expect(await from.put(work, 'solid', bytes)).toEqual({ sha256: sha256(bytes), bytes: 70_000 });
    expect(taken.equals(Buffer.from(bytes))).toBe(true);
    await from.done(work, {}, { seconds: 1, memory: 1 });
    await from.giveBack(work);
    expect(asked.at(-1)).toMatch(/^DELETE/);
    expect(asked.every((a) => a.endsWith('Bearer maypole_key'))).toBe(true);
  });
  it('is given up where the key was withdrawn, the version is another, or the frame is somebody else’s', async () => {
    const refused = (status: number) => () => ({ status, body: { error: `No: ${status}.` } });
    const { source: from, url } = await serverOf({
      'POST /api/work/claim': refused(401),
      'PUT /api/work/leases/lease-0': refused(409),
      'POST /api/work/leases/lease-0/done': refused(409),
    });
    await expect(from.claim()).rejects.toMatchObject({ message: 'No: 401.', forGood: true });
    expect(await renewAt({ server: url.href, key: 'k' }, 'lease-0')).toBe(false);
    const renewer = new Renewer(RENEW_SERVER, { server: url.href, key: 'k', every: 50 });
    await new Promise<void>((resolve) => void renewer.keep('lease-0', resolve));
    await expect(from.done(part(0), {}, { seconds: 1, memory: 1 })).rejects.toMatchObject({ forGood: true });
    const { source: other } = await serverOf({ 'POST /api/work/claim': refused(409) });
    await expect(other.claim()).rejects.toMatchObject({ message: 'No: 409.', forGood: true });
  });
  it('is asked for again later where the server is away or has too much to do', async () => {
    const { source: busy } = await serverOf({
      'POST /api/work/claim': () => ({ status: 503, body: { error: 'Away.' } }),
    });
    await expect(busy.claim()).rejects.toMatchObject({ message: 'Away.', forGood: false });
    const away = new ServerSource(new URL('http://127.0.0.1:9'), 'k', { id: 'machine-1234', name: 'A', threads: 1 });
    await expect(away.claim()).rejects.toThrow(Refused);
    await expect(away.claim()).rejects.toThrow(/http:\/\/127\.0\.0\.1:9 does not answer .*; asking again/);
  });
  it('brings a finished frame again when the server comes back', async () => {
    let times = 0;
    const { source: from } = await serverOf({
      'POST /api/work/leases/lease-2/done': () =>
        ++times < 2 ? { status: 503, body: { error: 'Away.' } } : { status: 204 },
    });
    await from.done(part(2), {}, { seconds: 1, memory: 1 });
    expect(times).toBe(2);
  });
});

/** A server in a thread of its own that counts what it is asked, and tells it when it is sent a message. */
const COUNTING = `
  const { parentPort } = require('node:worker_threads');
  let asked = 0;
  const server = require('node:http').createServer((_, response) => { asked++; response.writeHead(204).end(); });
  server.listen(0, '127.0.0.1', () => parentPort.postMessage(server.address().port));
  parentPort.on('message', () => parentPort.postMessage(asked));
`;

describe('a lease', () => {
  it('is kept by a thread of its own, however long a frame keeps the others busy', async () => {
    const counting = new Worker(COUNTING, { eval: true });
    const heard = () => new Promise<number>((resolve) => counting.once('message', resolve));
    const server = `http://127.0.0.1:${await heard()}`;
    const end = new Renewer(RENEW_SERVER, { server, key: 'k', every: 50 }).keep('lease-9', () => undefined);
    const until = async (least: number) => {
      for (let n = 0; n < least; counting.postMessage(null), n = await heard());
    };
    // The thread has begun.
    counting.postMessage(null);
    await heard();
    await until(1);
    const from = performance.now();
    while (performance.now() - from < 1500);
    counting.postMessage(null);
    expect(await heard()).toBeGreaterThan(5);
    end();
    await counting.terminate();
  }, 30_000);

  it('keeps no process from ending that has nothing else to do', async () => {
    const counting = new Worker(COUNTING, { eval: true });
    const port = await new Promise<number>((resolve) => counting.once('message', resolve));
    const script = path.join(import.meta.dirname, 'fixtures/keeps-once.ts');
    const child = spawn(process.execPath, ['--import', 'tsx', script, `http://127.0.0.1:${port}`], { stdio: 'ignore' });
    const status = await new Promise((resolve) => child.once('exit', resolve));
    await counting.terminate();
    expect(status).toBe(0);
  }, 30_000);

  it('is given back by a worker that ends in the middle of a frame', async () => {
    const list = new ListSource([part(0)]);
    const worker = new FrameWorker(list, 1);
    const making = worker.next();
    await expect.poll(() => worker.doing).not.toBe('');
    await worker.close();
    await making;
    expect(list.told[0]).toBe('back 0');
  });
});

describe('sheets that are kept', () => {
  it('are there whole or not at all, and known by what they are', async () => {
    const store = new FrameImageStore(folder);
    const print = 'ab'.repeat(32);
    const kept = await store.put(print, 'solid', Uint8Array.of(1, 2, 3));
    const file = store.file(print, 'solid');
    expect(file).toBe(path.join(folder, 'ab', `${print}.solid.png`));
    expect([...readFileSync(file)]).toEqual([1, 2, 3]);
    expect(await store.intact(print, 'solid', kept)).toBe(true);
    expect(await store.intact(print, 'clear', kept)).toBe(false);
    expect(await store.intact(print, 'solid', undefined)).toBe(false);
    writeFileSync(file, Uint8Array.of(1, 2, 4));
    expect(await store.intact(print, 'solid', kept)).toBe(false);
    await store.remove(print, 'solid');
    expect(existsSync(file)).toBe(false);
  });
  it('that cannot be written leave nothing behind', async () => {
    writeFileSync(path.join(folder, 'file'), '');
    await expect(writeWhole(path.join(folder, 'file', 'x.png'), Uint8Array.of(1))).rejects.toThrow();
    expect(existsSync(path.join(folder, 'file', 'x.png'))).toBe(false);
  });
});
