import { installedDatabase } from './database.mjs';
import { isSame } from './identity.mjs';
import { endProcess } from './processes.mjs';
import { busyWith, forgetRunning, runningNow } from './running.mjs';
import { say, Stop } from './say.mjs';

export async function run() {
  const busy = busyWith();
  if (busy) throw new Stop(`The data is just being ${busy} by another command; try again in a moment.`);
  const cluster = installedDatabase();
  const { keeper, application } = runningNow();
  const wasUp = Boolean(keeper || application || cluster.running()?.pid);
  // It stops application and database itself.
  if (keeper) await endProcess(keeper.pid, 'SIGTERM', 40_000);
  // Left over only if that command was killed.
  if (isSame(application)) await endProcess(application.pid);
  forgetRunning();
  await cluster.stop();
  say(wasUp ? 'Maypole has stopped.' : 'Maypole was not running.');
}
