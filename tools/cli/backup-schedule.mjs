import { mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { moment, writeBackup } from './backup-file.mjs';
import { say, Stop } from './say.mjs';

const NAME = /^maypole-\d{4}-\d\d-\d\d-\d{6}\.backup$/;

/**
 * Settings of automatic backups: MAYPOLE_BACKUPS names a folder, MAYPOLE_BACKUP_HOURS the interval (24),
 * MAYPOLE_BACKUPS_KEPT how many are kept (14). Undefined for none.
 */
export function backupSchedule(env = process.env) {
  const folder = env.MAYPOLE_BACKUPS;
  if (!folder) return undefined;
  const number = (name, otherwise, most) => {
    const value = env[name] === undefined || env[name] === '' ? otherwise : Number(env[name]);
    if (!(value > 0 && value <= most))
      throw new Stop(`${name} is “${env[name]}”; write a number above 0, up to ${most}.`, 2);
    return value;
  };
  if (env.MAYPOLE_DATABASE)
    throw new Stop(
      'MAYPOLE_BACKUPS is for a database of Maypole’s own; back the one of MAYPOLE_DATABASE up with its server.',
      2,
    );
  return {
    folder: path.resolve(folder),
    hours: number('MAYPOLE_BACKUP_HOURS', 24, 8760),
    kept: Math.ceil(number('MAYPOLE_BACKUPS_KEPT', 14, 10_000)),
  };
}

/** Our backups in a folder, oldest first. */
function ours(folder) {
  return readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort();
}

/** Deletes the oldest so that so many remain; touches only files named as ours. */
export function rotate(folder, kept) {
  for (const name of ours(folder).slice(0, -kept)) rmSync(path.join(folder, name));
}

/** Hours until the next is due; 0 if the latest is older than the interval. */
export function hoursToNext({ folder, hours }, now = Date.now()) {
  const latest = ours(folder).at(-1);
  if (latest === undefined) return 0;
  return Math.max(0, hours - (now - statSync(path.join(folder, latest)).mtimeMs) / 3_600_000);
}

/** Makes backups for as long as this command runs. */
export async function keepBackups(cluster, schedule) {
  const { folder, kept } = schedule;
  try {
    mkdirSync(folder, { recursive: true });
    if (hoursToNext(schedule) === 0) {
      const file = await writeBackup(cluster, path.join(folder, `maypole-${moment()}.backup`));
      rotate(folder, kept);
      say(`Backed up to ${file}.`);
    }
  } catch (error) {
    // Serving continues; the backup is tried again.
    console.error(`No backup could be made in ${folder}: ${error.message}`);
  }
  const wait = Math.max(60_000, Math.min(hoursToNext(schedule) * 3_600_000, 3_600_000));
  setTimeout(() => void keepBackups(cluster, schedule), wait).unref();
}
