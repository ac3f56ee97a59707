import path from 'node:path';
import { Cluster } from './database.mjs';
import { isSame } from './identity.mjs';
import { DATA } from './paths.mjs';
import { endProcess } from './processes.mjs';
import { forgetRunning, runningNow } from './running.mjs';
import { say } from './say.mjs';

export async function run() {
  const cluster = new Cluster(path.join(DATA, 'database'));
  const { keeper, application } = runningNow();
  const wasUp = Boolean(keeper || application || cluster.running());
  // It ends the application and the database itself.
  if (keeper) await endProcess(keeper.pid, 'SIGTERM', 40_000);
  // Left over only if that command was killed.
  if (isSame(application)) await endProcess(application.pid);
  forgetRunning();
  await cluster.stop();
  say(wasUp ? 'Maypole has stopped.' : 'Maypole was not running.');
}
