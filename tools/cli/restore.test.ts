import { spawn } from 'node:child_process';
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { prepareDatabase } from './application.mjs';
import { differenceOf, factsOf } from './backup-facts.mjs';
import { writeBackup } from './backup-file.mjs';
import { checkSeal } from './backup-seal.mjs';
import { Cluster } from './database.mjs';
import { ROOT } from './paths.mjs';
import { Tries } from './tries.mjs';
import { rounds } from '@maypole/core/fixtures/effort';

type Facts = Record<string, { rows: string; sum: string }>;
const data = mkdtempSync(path.join(os.tmpdir(), 'maypole-restore-'));
const cluster = new Cluster(path.join(data, 'database'));
const [full, less] = ['full', 'less'].map((name) => path.join(data, `${name}.backup`));
const spoilt = path.join(data, 'spoilt.backup');

const facts = async (): Promise<Facts> => {
  const client = await cluster.superuser('postgres');
  await client.connect();
  try {
    return (await factsOf(client)) as unknown as Facts;
  } finally {
    await client.end();
  }
};
const query = async (text: string) => {
  const client = await cluster.superuser('postgres');
  await client.connect();
  await client.query(text);
  await client.end();
};
/** Runs the command, and ends it the hard way after so many milliseconds; gives its status and what it said. */
const restore = (file: string, killAfter?: number) =>
  new Promise<{ status: number | null; said: string }>((resolve) => {
    const child = spawn(path.join(ROOT, 'maypole'), ['restore', file, '--replace'], {
      env: { ...process.env, MAYPOLE_DATA: data },
    });
    let said = '';
    const hear = (chunk: Buffer) => (said += chunk.toString());
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    if (killAfter !== undefined) setTimeout(() => child.kill('SIGKILL'), killAfter);
    child.on('close', (status) => resolve({ status, said }));
  });

beforeAll(async () => {
  chmodSync(data, 0o755);
  await prepareDatabase(await cluster.start(), true);
  await writeBackup(cluster, full);
  await query(`delete from pieces where id in (select id from pieces order by id limit 5)`);
  await writeBackup(cluster, less);
}, 600_000);
afterAll(async () => {
  await cluster.stop();
  rmSync(data, { recursive: true, force: true });
});

describe('a backup', () => {
  it('carries what it holds, is read by nobody else, and is not made over another', async () => {
    const carried = (await checkSeal(less)) as Facts;
    expect(differenceOf(carried, await facts())).toBeUndefined();
    expect(Number(((await checkSeal(full)) as Facts)['public.pieces'].rows)).toBe(
      Number(carried['public.pieces'].rows) + 5,
    );
    expect(statSync(full).mode & 0o777).toBe(0o600);
  });
  it('is tried again where the database ends under it, and comes to its end', async () => {
    const file = path.join(data, 'again.backup');
    const superuser = cluster.superuser.bind(cluster);
    let asked = 0;
    // The first connection is cut as soon as it asks for something, as by a database that is killed and started again.
    cluster.superuser = async (name: string) => {
      const client = await superuser(name);
      if (++asked === 1) client.query = () => Promise.reject(new Error('Connection terminated unexpectedly'));
      return client;
    };
    try {
      await writeBackup(cluster, file);
    } finally {
      cluster.superuser = superuser;
    }
    expect(asked).toBe(2);
    expect(differenceOf((await checkSeal(file)) as Facts, await facts())).toBeUndefined();
    expect(readdirSync(data).filter((name) => name.endsWith('.part'))).toEqual([]);
  }, 60_000);
  it('what differs is named', () => {
    const one = { rows: '2', sum: '7' };
    expect(differenceOf({ a: one }, { a: one })).toBeUndefined();
    expect(differenceOf({ a: one }, {})).toBe('the table a is missing');
    expect(differenceOf({}, { a: one })).toBe('the table a is one too many');
    expect(differenceOf({ a: one }, { a: { rows: '3', sum: '7' } })).toContain('3 rows instead of 2');
    expect(differenceOf({ a: one }, { a: { rows: '2', sum: '8' } })).toContain('are not as they were');
  });
  it('is known to be cut, wherever that is', async () => {
    const { size } = statSync(full);
    for (let i = 0; i < 20; i++) {
      cpSync(full, spoilt);
      truncateSync(spoilt, i < 10 ? size - 1 - i * 13 : Math.floor((size * i) / 20));
      expect(await checkSeal(spoilt)).toBeUndefined();
    }
  });
  it('is known to be damaged by a single bit, wherever that is', async () => {
    const bytes = readFileSync(full);
    for (let i = 0; i < 20; i++) {
      const place = i < 10 ? bytes.length - 1 - i * 17 : Math.floor((bytes.length * (i - 10)) / 10);
      const flipped = Buffer.from(bytes);
      flipped[place] ^= 1 << (i % 8);
      writeFileSync(spoilt, flipped);
      const seal = await checkSeal(spoilt).then(
        (found) => found as Facts | undefined,
        (error: Error) => error.message,
      );
      // In its last line it has no seal any more; anywhere else it has one that it does not fit.
      if (seal !== undefined) expect(seal).toContain('is damaged');
    }
  });
  it('that is spoilt changes nothing, and says so', async () => {
    const before = await facts();
    writeFileSync(spoilt, readFileSync(full).subarray(0, -2000));
    expect((await restore(spoilt)).said).toContain('nothing was touched');
    const flipped = readFileSync(full);
    flipped[Math.floor(flipped.length / 2)] ^= 4;
    writeFileSync(spoilt, flipped);
    const { status, said } = await restore(spoilt);
    expect(status).toBe(1);
    expect(said).toContain('is damaged');
    expect(differenceOf(before, await facts())).toBeUndefined();
  });
});

describe('bringing a backup back', () => {
  it('killed at any moment, leaves the one or the other whole', async () => {
    const states = { full: (await checkSeal(full)) as Facts, less: (await checkSeal(less)) as Facts };
    const began = Date.now();
    expect((await restore(full)).said).toContain('The backup is back');
    const whole = Date.now() - began;
    expect(differenceOf(states.full, await facts())).toBeUndefined();
    const stands: string[] = [];
    const kills = rounds(4, 20);
    for (let i = 0; i < kills; i++) {
      const now = stands.at(-1) ?? 'full';
      await restore(now === 'full' ? less : full, (whole * (i + 0.5)) / kills);
      const found = await facts();
      const names = Object.entries(states).filter(([, wanted]) => differenceOf(wanted, found) === undefined);
      expect(names).toHaveLength(1);
      stands.push(names[0][0]);
    }
    // What those that were cut short have left is taken away by the next that comes to its end.
    expect((await restore(full)).said).toContain('The backup is back');
    const client = await cluster.superuser('postgres');
    await client.connect();
    const { rows } = await client.query<{ datname: string }>(
      `select datname from pg_database where datname like 'maypole\\_%'`,
    );
    await client.end();
    expect(rows).toEqual([]);
  }, 1_200_000);
});

describe('what a start finds', () => {
  it('a database that cannot be read is moved beside whole, told, and nothing is begun', async () => {
    const folder = path.join(data, 'other');
    mkdirSync(folder, { mode: 0o755 });
    const other = new Cluster(path.join(folder, 'database'));
    mkdirSync(path.join(other.files, 'base'), { recursive: true });
    writeFileSync(path.join(other.files, 'base', 'pieces'), 'fifty-nine pieces');
    const told = await other.start().catch((error: Error) => error.message);
    const beside = /moved to (\S+);/.exec(told as string)![1];
    expect(told).toContain('has no file PG_VERSION');
    expect(readFileSync(path.join(beside, 'base', 'pieces'), 'utf8')).toBe('fifty-nine pieces');
    expect(other.running()).toBeUndefined();
  });
  it('a database whose journal is gone is told at once, with what to do, and is left as it is', async () => {
    const folder = path.join(data, 'journal');
    mkdirSync(folder, { mode: 0o755 });
    const other = new Cluster(path.join(folder, 'database'));
    await other.start();
    await other.stop();
    renameSync(path.join(other.files, 'pg_wal'), path.join(other.files, 'elsewhere'));
    const began = Date.now();
    const told = (await other.start().catch((error: Error) => error.message)) as string;
    // Well below the time that is left for a recovery: it ends by itself, and that is seen.
    expect(Date.now() - began).toBeLessThan(20_000);
    expect(told).toContain('The database did not start');
    expect(told).toMatch(/pg_wal/);
    expect(other.running()).toBeUndefined();
    expect(existsSync(path.join(other.files, 'elsewhere'))).toBe(true);
  }, 120_000);
  it('what ends again and again is not tried for ever', () => {
    let now = 0;
    const tries = new Tries({ times: 2, within: 100 }, () => now);
    expect([tries.another(), tries.another(), tries.another()]).toEqual([true, true, false]);
    now = 101;
    expect(tries.another()).toBe(true);
  });
});
