import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { prepareDatabase, serve } from './application.mjs';
import { ensureBuild } from './build.mjs';
import { Cluster } from './database.mjs';
import { ensureNpm } from './install.mjs';
import { DATA } from './paths.mjs';
import { freePort, givenPort } from './ports.mjs';
import { RUN_FILE, runningInstance } from './running.mjs';
import { say, Stop, takeOption } from './say.mjs';

export async function run(args) {
  const asked = takeOption(args, '--port');
  if (args.length > 0) throw new Stop(`start does not know “${args[0]}”; it takes --port N.`, 2);
  const already = runningInstance();
  if (already) {
    say(`Maypole already runs at ${already.address}`);
    return;
  }
  const port = asked === undefined ? await freePort(4173) : await givenPort(asked);
  mkdirSync(DATA, { recursive: true });
  await ensureNpm();
  await ensureBuild();
  const cluster = new Cluster(path.join(DATA, 'database'));
  const url = await cluster.start();
  let application;
  let ending = false;
  const end = async (status) => {
    if (ending) return;
    ending = true;
    await application?.stop();
    await cluster.stop();
    rmSync(RUN_FILE, { force: true });
    process.exit(status);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  try {
    await prepareDatabase(url, true);
    application = await serve(url, port);
  } catch (error) {
    await cluster.stop();
    throw error;
  }
  writeFileSync(
    RUN_FILE,
    JSON.stringify({ pid: process.pid, application: application.pid, address: application.address }),
  );
  application.onExit(() => {
    if (ending) return;
    console.error(`The application ended by itself:\n${application.log().trim().split('\n').slice(-12).join('\n')}`);
    void end(1);
  });
  say(`Maypole is ready at ${application.address}`);
  say('Ctrl-C ends it.');
  // Holds the process until a signal comes.
  setInterval(() => undefined, 60_000);
}
