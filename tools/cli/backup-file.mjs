import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { runProgram } from './processes.mjs';
import { Stop } from './say.mjs';

/** 2026-11-27-121503, by the clock of this machine. */
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

/** A file in a folder that is there, or in the place that is named. */
export function placeFor(where) {
  if (existsSync(where) && statSync(where).isDirectory()) return path.join(where, `maypole-${moment()}.backup`);
  if (!existsSync(path.dirname(path.resolve(where))))
    throw new Stop(`There is no folder ${path.dirname(where)} for the backup.`, 2);
  if (existsSync(where)) throw new Stop(`${where} is there already, and is not written over; give another name.`, 2);
  return where;
}

/** Everything that is kept at one moment, in PostgreSQL's own format; it may run meanwhile. */
export async function writeBackup(cluster, file) {
  const fresh = `${file}.part`;
  const done = await runProgram(
    cluster.program('pg_dump'),
    ['--format=custom', `--file=${fresh}`, cluster.superuserAddress()],
    {
      quiet: true,
    },
  );
  if (done.status !== 0) {
    rmSync(fresh, { force: true });
    throw new Stop(`The backup could not be written: ${done.output.trim().split('\n').at(-1)}`);
  }
  renameSync(fresh, file);
  return file;
}
