import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { prepareDatabase } from './application.mjs';
import { installedDatabase } from './database.mjs';
import { ensureNpm } from './install.mjs';
import { moment, placeFor, sizeOf, writeBackup } from './backup-file.mjs';
import { BIN, DATA, ROOT, WEB } from './paths.mjs';
import { SCHEMA } from './outside-database.mjs';
import { runProgram } from './processes.mjs';
import { dropLock, makeDataFolder, runningInstance, takeLock } from './running.mjs';
import { say, Stop, takeFlag } from './say.mjs';

/** The database of this installation while something is done with it; one that was not running is ended afterwards. */
async function withDatabase(doing, work) {
  makeDataFolder();
  await ensureNpm();
  const cluster = installedDatabase();
  if (cluster.shown && doing !== 'written out')
    throw new Stop(
      `The data is in ${cluster.shown}, which MAYPOLE_DATABASE names, and is backed up with its server: pg_dump --schema=${SCHEMA}, pg_restore. ./maypole export-all writes the pieces themselves.`,
    );
  const ran = cluster.running();
  const other = takeLock(doing);
  if (other && !ran) throw new Stop('Another command is starting or ending Maypole; try again in a moment.');
  const address = await cluster.start();
  try {
    return await work(cluster, address);
  } finally {
    if (!ran) await cluster.stop();
    if (!other) dropLock();
  }
}

export async function backup(args) {
  const [where, ...more] = args;
  if (where === undefined || more.length > 0)
    throw new Stop('Name a folder or a file: ./maypole backup FOLDER|FILE.', 2);
  const file = placeFor(where);
  await withDatabase('backed up', (cluster) => writeBackup(cluster, file));
  say(`Backed up to ${file} (${sizeOf(file)}). ./maypole restore brings it back.`);
}

export async function restore(args) {
  const replaces = takeFlag(args, '--replace');
  const [file, ...more] = args;
  if (file === undefined || more.length > 0) throw new Stop('Name the backup: ./maypole restore FILE [--replace].', 2);
  if (!existsSync(file) || !statSync(file).isFile()) throw new Stop(`There is no backup ${file}.`, 2);
  const running = runningInstance();
  if (running) throw new Stop(`Maypole runs at ${running.address}; end it with ./maypole stop, then try again.`);
  await withDatabase('restored', async (cluster) => {
    const look = await runProgram(cluster.program('pg_restore'), ['--list', file], { quiet: true });
    if (look.status !== 0 || !/TABLE DATA public pieces/.test(look.output))
      throw new Stop(`${file} is no backup of Maypole, or is damaged; use one that ./maypole backup has written.`);
    const client = await cluster.superuser('postgres');
    await client.connect();
    try {
      const { rows } = await client.query(`select to_regclass('public.pieces') is not null as there`);
      const kept = rows[0].there
        ? (
            await client.query(
              `select (select count(*) from pieces)::int as pieces,
                 ((select count(*) from pieces) + (select count(*) from looks) + (select count(*) from assets))::int as all`,
            )
          ).rows[0]
        : { pieces: 0, all: 0 };
      if (kept.all > 0 && !replaces)
        throw new Stop(
          `There are ${kept.pieces} pieces here already. Restore into an empty installation (set MAYPOLE_DATA to another folder), or put the backup in their place with --replace; they are backed up first.`,
        );
      if (kept.all > 0) {
        const before = await writeBackup(cluster, path.join(DATA, `before-restore-${moment()}.backup`));
        say(`What was here is kept in ${before}.`);
      }
      await client.query('drop schema if exists public cascade');
      await client.query('drop schema if exists drizzle cascade');
      await client.query('create schema public');
    } finally {
      await client.end();
    }
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
        cluster.superuserAddress(),
        file,
      ],
      { quiet: true },
    );
    if (done.status !== 0)
      throw new Stop(`The backup could not be brought back: ${done.output.trim().split('\n').at(-1)}`);
    // An earlier Maypole may have written it.
    await prepareDatabase(await cluster.forApplication('postgres'), false);
  });
  say('The backup is back. ./maypole start serves it.');
}

/** One piece as a file in a folder, by its name or number; gives the file. */
export async function exportPiece(name, folder) {
  return withDatabase('written out', async (_cluster, address) => {
    await prepareDatabase(address, false);
    const done = await runProgram(
      path.join(BIN, 'tsx'),
      [path.join(WEB, 'server/export.ts'), path.resolve(folder), '--piece', name],
      { cwd: ROOT, quiet: true, env: { ...process.env, DATABASE_URL: address } },
    );
    if (done.status !== 0) throw new Stop(done.output.trim().split('\n').at(-1), 2);
    return path.join(folder, /file: (.+)/.exec(done.output)[1].trim());
  });
}

export async function exportAll(args) {
  const [folder, ...more] = args;
  if (folder === undefined || more.length > 0) throw new Stop('Name a folder: ./maypole export-all FOLDER.', 2);
  if (existsSync(folder) && (!statSync(folder).isDirectory() || readdirSync(folder).length > 0))
    throw new Stop(`${folder} is not an empty folder; give another, so that nothing is written over.`, 2);
  mkdirSync(folder, { recursive: true });
  const written = await withDatabase('written out', async (_cluster, address) => {
    await prepareDatabase(address, false);
    const done = await runProgram(path.join(BIN, 'tsx'), [path.join(WEB, 'server/export.ts'), path.resolve(folder)], {
      cwd: ROOT,
      quiet: true,
      env: { ...process.env, DATABASE_URL: address },
    });
    if (done.status !== 0)
      throw new Stop(`The pieces could not be written:\n${done.output.trim().split('\n').slice(-3).join('\n')}`);
    return /written: (\d+)/.exec(done.output)[1];
  });
  say(`${written} pieces are in ${folder}, each with the files it names; those in the bin too.`);
}
