/** Serves the built application. Run by the start command, configured by environment variables. */
import { readFileSync } from 'node:fs';
import next from 'next';
import { doJob } from '../jobs/jobs';
import { keepWorker } from '../render/local-worker';
import { front } from './gateway';
import { log } from './log';

async function main(): Promise<void> {
  const env = process.env;
  const hostname = env.MAYPOLE_ADDRESS_TO_LISTEN ?? '127.0.0.1';
  const port = Number(env.MAYPOLE_PORT);
  const tls =
    env.MAYPOLE_CERTIFICATE && env.MAYPOLE_CERTIFICATE_KEY
      ? { cert: readFileSync(env.MAYPOLE_CERTIFICATE), key: readFileSync(env.MAYPOLE_CERTIFICATE_KEY) }
      : undefined;
  const application = next({ dev: false, dir: process.cwd(), hostname, port });
  await application.prepare();
  const answer = application.getRequestHandler();
  const { server, drain } = front({
    answer: (request, response) => void answer(request, response),
    tls,
    proxies: env.MAYPOLE_PROXIES,
    hosts: env.MAYPOLE_HOSTS,
    secureOnly: env.MAYPOLE_OPEN === '1',
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, resolve);
  });
  log().info({ hostname, port, tls: tls !== undefined }, 'started');
  keepTidyDaily();
  beginRendersAnew();
  keepWorker();
  let ending = false;
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      if (ending) return;
      ending = true;
      void drain().then(() => {
        log().info({}, 'ended');
        // Log lines are written within this turn.
        setTimeout(() => process.exit(0), 50);
      });
    });
  process.on('unhandledRejection', (error) => log().error({ error: String(error) }, 'fault'));
}

/** Removes expired data once a day, and a while after each start. */
function keepTidyDaily(): void {
  const tidy = () =>
    void doJob('upkeep', 'keepTidy', undefined).then(
      (taken) => log().info({ taken }, 'tidied'),
      (error: unknown) => log().warn({ error: String(error) }, 'not tidied'),
    );
  setTimeout(tidy, 600_000).unref();
  setInterval(tidy, 86_400_000).unref();
}

/** Restarts the frames of renders that another renderer version began. */
function beginRendersAnew(): void {
  void doJob('upkeep', 'beginAnew', undefined).then(
    (renders) => renders > 0 && log().info({ renders }, 'begun anew'),
    (error: unknown) => log().warn({ error: String(error) }, 'renders of another version not begun anew'),
  );
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
