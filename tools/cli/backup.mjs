import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { prepareDatabase } from './application.mjs';
import { placeFor, sizeOf, writeBackup } from './backup-file.mjs';
import { BIN, ROOT, WEB } from './paths.mjs';
import { runProgram } from './processes.mjs';
import { say, Stop } from './say.mjs';
import { withDatabase } from './with-database.mjs';

export async function backup(args) {
  const [where, ...more] = args;
  if (where === undefined || more.length > 0)
    throw new Stop('Name a folder or a file: ./maypole backup FOLDER|FILE.', 2);
  const file = placeFor(where);
  await withDatabase('backed up', (cluster) => writeBackup(cluster, file));
  say(`Backed up to ${file} (${sizeOf(file)}). ./maypole restore brings it back.`);
}

/** Exports a piece into a folder, by its name or number; returns the file. */
export async function exportPiece(name, folder) {
  return withDatabase('written out', async (_cluster, address) => {
    await prepareDatabase(address, false);
    const done = await runProgram(
      path.join(BIN, 'tsx'),
      [path.join(WEB, 'server/pieces/export.ts'), path.resolve(folder), '--piece', name],
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
    const done = await runProgram(
      path.join(BIN, 'tsx'),
      [path.join(WEB, 'server/pieces/export.ts'), path.resolve(folder)],
      {
        cwd: ROOT,
        quiet: true,
        env: { ...process.env, DATABASE_URL: address },
      },
    );
    if (done.status !== 0)
      throw new Stop(`The pieces could not be written:\n${done.output.trim().split('\n').slice(-3).join('\n')}`);
    return /written: (\d+)/.exec(done.output)[1];
  });
  say(`${written} pieces are in ${folder}, each with the files it names; those in the bin too.`);
}
