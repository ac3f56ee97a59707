import { installedDatabase } from './database.mjs';
import { ensureNpm } from './install.mjs';
import { SCHEMA } from './outside-database.mjs';
import { makeFolder, writePrivately } from './folders.mjs';
import { DATA } from './paths.mjs';
import { dropLock, takeLock } from './running.mjs';
import { Stop } from './say.mjs';

/** Runs `work` with this installation's database; one that was not running is stopped afterwards. */
export async function withDatabase(doing, work) {
  makeFolder(DATA);
  await ensureNpm();
  writePrivately();
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
