import { closeSync, existsSync, fsyncSync, openSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { factsOf } from './backup-facts.mjs';
import { seal } from './backup-seal.mjs';
import { pause, runProgram } from './processes.mjs';
import { Stop } from './say.mjs';

/** Attempts at a backup if the database stops meanwhile, and milliseconds between them. */
const TRIES = 4;
const BETWEEN = 2000;

/** 2026-11-27-121503, in local time. */
export function moment() {
  const two = (n) => String(n).padStart(2, '0');
  const d = new Date();
  const day = [d.getFullYear(), two(d.getMonth() + 1), two(d.getDate())].join('-');
  return `${day}-${[d.getHours(), d.getMinutes(), d.getSeconds()].map(two).join('')}`;
}

export function sizeOf(file) {
  const { size } = statSync(file);
  return size < 2 ** 20 ? `${Math.ceil(size / 1024)} kB` : `${(size / 2 ** 20).toFixed(1)} MB`;
}

/** A file in an existing folder, or at the named path. */
export function placeFor(where) {
  if (existsSync(where) && statSync(where).isDirectory()) return path.join(where, `maypole-${moment()}.backup`);
  if (!existsSync(path.dirname(path.resolve(where))))
    throw new Stop(`There is no folder ${path.dirname(where)} for the backup.`, 2);
  if (existsSync(where)) throw new Stop(`${where} is there already, and is not written over; give another name.`, 2);
  return where;
}

/**
 * Everything that is kept at one moment, in PostgreSQL's own format, sealed (backup-seal.mjs); it may run meanwhile.
 * Where the database ends under it, it is tried again: something else keeps that running.
 *
 * @returns the file
 */
export async function writeBackup(cluster, file) {
  // Unique to this process: another backup may be writing to the same name.
  const fresh = `${file}.${process.pid}.part`;
  for (let tried = 1; ; tried++) {
    try {
      const facts = await dump(cluster, fresh);
      await seal(fresh, facts);
      renameSync(fresh, file);
      flushFolder(path.dirname(file));
      return file;
    } catch (error) {
      rmSync(fresh, { force: true });
      if (error instanceof Stop || tried === TRIES) throw asStop(error);
      await pause(BETWEEN);
    }
  }
}

/** The archive and the facts of one snapshot. */
async function dump(cluster, file) {
  const client = await cluster.superuser('postgres');
  await client.connect();
  try {
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query('select pg_export_snapshot() as name');
    // Unreadable to others, whatever the folder's permissions.
    closeSync(openSync(file, 'w', 0o600));
    const done = await runProgram(
      cluster.program('pg_dump'),
      ['--format=custom', `--snapshot=${rows[0].name}`, `--file=${file}`, cluster.superuserAddress()],
      { quiet: true },
    );
    if (done.status !== 0) throw new Error(done.output.trim().split('\n').at(-1));
    return await factsOf(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

function asStop(error) {
  if (error instanceof Stop) return error;
  const gone = /terminat|connection|ECONN|shutting down|starting up|server closed/i.test(error.message);
  return error.code === 'ENOSPC' || /No space left/.test(error.message)
    ? new Stop('The backup could not be written: the disk is full. Make room on it, or name another place.')
    : new Stop(
        gone
          ? `The backup could not be written: the database ended under it ${TRIES} times. See with ./maypole doctor whether it keeps running, then try again.`
          : `The backup could not be written: ${error.message}`,
      );
}

/** Flushes a folder, so that a new name in it is on disk. */
export function flushFolder(folder) {
  const handle = openSync(folder, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}
