import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { prepareDatabase } from './application.mjs';
import { differenceOf, factsOf } from './backup-facts.mjs';
import { moment, writeBackup } from './backup-file.mjs';
import { checkSeal } from './backup-seal.mjs';
import { DATA } from './paths.mjs';
import { runProgram } from './processes.mjs';
import { runningInstance } from './running.mjs';
import { say, Stop, takeFlag } from './say.mjs';
import { withDatabase } from './with-database.mjs';

/** Names of databases beside the served one: one that a backup is restored into, and the one that was served before. */
const FRESH = 'maypole_restoring_';
const FORMER = 'maypole_before_';
/** The name of the served database. */
const SERVED = 'postgres';

/**
 * Brings a backup back. It is compared with its own sum first; then it is put into a fresh database beside the one that
 * is served, brought up to date and compared with what it says it holds; then the two change names in one transaction.
 * Whatever ends in between, the one or the other stands there whole.
 */
export async function run(args) {
  const replaces = takeFlag(args, '--replace');
  const unsealed = takeFlag(args, '--unsealed');
  const [file, ...more] = args;
  if (file === undefined || more.length > 0)
    throw new Stop('Name the backup: ./maypole restore FILE [--replace] [--unsealed].', 2);
  if (!existsSync(file) || !statSync(file).isFile()) throw new Stop(`There is no backup ${file}.`, 2);
  const facts = await checkSeal(file);
  if (!facts && !unsealed)
    throw new Stop(
      `${file} is no backup of Maypole, or its end is missing, or a Maypole wrote it that did not seal backups yet. Of the last kind it is taken with --unsealed; nothing was touched.`,
    );
  const running = runningInstance();
  if (running) throw new Stop(`Maypole runs at ${running.address}; end it with ./maypole stop, then try again.`);
  await withDatabase('restored', async (cluster) => {
    const look = await runProgram(cluster.program('pg_restore'), ['--list', file], { quiet: true });
    if (look.status !== 0 || !/TABLE DATA public pieces/.test(look.output))
      throw new Stop(`${file} is no backup of Maypole, or is damaged; use one that ./maypole backup has written.`);
    const when = moment();
    const kept = await keptBefore(cluster, replaces, when);
    const fresh = `${FRESH}${Date.now()}`;
    await asSuperuser(cluster, 'template1', (client) => dropLeft(client));
    try {
      await fill(cluster, fresh, file, facts);
      await swap(cluster, fresh, kept, `${FORMER}${when.replaceAll('-', '')}`);
    } finally {
      // Nothing of it remains after the swap; before the swap it belongs to this very act.
      await asSuperuser(cluster, 'template1', (client) =>
        client.query(`drop database if exists ${fresh} with (force)`),
      ).catch(() => undefined);
    }
  });
  say('The backup is back. ./maypole start serves it.');
}

async function asSuperuser(cluster, name, work) {
  const client = await cluster.superuser(name);
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

/**
 * Removes what an interrupted restore has left: a half-filled database that nobody ever used, and a formerly served one
 * whose backup reads whole.
 */
async function dropLeft(client) {
  const { rows } = await client.query(`select datname as name from pg_database where datname ~ $1`, [
    `^(${FRESH}|${FORMER})[0-9]+$`,
  ]);
  for (const { name } of rows) {
    const [, ...parts] = /(\d{4})(\d\d)(\d\d)(\d{6})$/.exec(name.slice(FORMER.length)) ?? [];
    const backup = backupBefore(parts.join('-'));
    if (name.startsWith(FRESH) || (existsSync(backup) && (await checkSeal(backup).catch(() => undefined))))
      await client.query(`drop database if exists ${name} with (force)`);
  }
}

const backupBefore = (when) => path.join(DATA, `before-restore-${when}.backup`);

/** Backs up what is there, if anything is; returns that backup. */
async function keptBefore(cluster, replaces, when) {
  const kept = await asSuperuser(cluster, SERVED, async (client) => {
    const { rows } = await client.query(`select to_regclass('public.pieces') is not null as there`);
    if (!rows[0].there) return { pieces: 0, all: 0 };
    const counts = await client.query(
      `select (select count(*) from pieces)::int as pieces,
         ((select count(*) from pieces) + (select count(*) from looks) + (select count(*) from assets))::int as all`,
    );
    return counts.rows[0];
  });
  if (kept.all === 0) return undefined;
  if (!replaces)
    throw new Stop(
      `There are ${kept.pieces} pieces here already. Restore into an empty installation (set MAYPOLE_DATA to another folder), or put the backup in their place with --replace; they are backed up first.`,
    );
  const before = await writeBackup(cluster, backupBefore(when));
  say(`What was here is kept in ${before}.`);
  return before;
}

/** Restores a backup into a fresh database, compares it with its facts, and migrates it. */
async function fill(cluster, name, file, facts) {
  await asSuperuser(cluster, 'template1', (client) => client.query(`create database ${name} template template0`));
  await asSuperuser(cluster, name, (client) => client.query('drop schema if exists public; create schema public'));
  const done = await runProgram(
    cluster.program('pg_restore'),
    [
      '--no-owner',
      '--no-acl',
      '--exit-on-error',
      '--single-transaction',
      '--clean',
      '--if-exists',
      '-d',
      cluster.superuserAddress(name),
      file,
    ],
    { quiet: true },
  );
  if (done.status !== 0)
    throw new Stop(
      `The backup could not be brought back, and what was here stays: ${done.output.trim().split('\n').at(-1)}`,
    );
  const wrong = facts && differenceOf(facts, await asSuperuser(cluster, name, factsOf));
  if (wrong) throw new Stop(`The backup could not be brought back, and what was here stays: ${wrong}.`);
  // An earlier Maypole may have written it.
  await prepareDatabase(await cluster.forApplication(name), false);
}

/**
 * Swaps the names of two databases in one transaction (PostgreSQL renames a database like any other row). The former
 * one is dropped only if a backup of it, made by this act, reads whole.
 */
async function swap(cluster, fresh, before, former) {
  await asSuperuser(cluster, 'template1', async (client) => {
    await client.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = any($1) and pid <> pg_backend_pid()`,
      [[SERVED, fresh]],
    );
    await client.query('begin');
    await client.query(`alter database ${SERVED} rename to ${former}`);
    await client.query(`alter database ${fresh} rename to ${SERVED}`);
    await client.query('commit');
    if (!before || (await checkSeal(before))) await client.query(`drop database if exists ${former} with (force)`);
  });
}
