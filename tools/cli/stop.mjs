import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { Cluster } from './database.mjs';
import { DATA } from './paths.mjs';
import { endProcess } from './processes.mjs';
import { say } from './say.mjs';
import { RUN_FILE } from './running.mjs';

export async function run() {
  const cluster = new Cluster(path.join(DATA, 'database'));
  const run = existsSync(RUN_FILE) ? JSON.parse(readFileSync(RUN_FILE, 'utf8')) : undefined;
  const wasUp = Boolean(run || cluster.running());
  if (run) {
    await endProcess(run.pid, 'SIGTERM', 40_000);
    // Only left over if the command itself was killed.
    await endProcess(run.application);
    rmSync(RUN_FILE, { force: true });
  }
  await cluster.stop();
  say(wasUp ? 'Maypole has stopped.' : 'Maypole was not running.');
}
