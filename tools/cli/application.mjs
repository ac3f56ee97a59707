import { spawn } from 'node:child_process';
import path from 'node:path';
import { isSame } from './identity.mjs';
import { BIN, ROOT, WEB } from './paths.mjs';
import { endProcess, pause, runProgram, waitFor } from './processes.mjs';
import { MARK } from './running.mjs';
import { Stop } from './say.mjs';

/** Migrates the database; gives an empty one the demo pieces if asked. */
export async function prepareDatabase(url, demo) {
  const done = await runProgram(
    path.join(BIN, 'tsx'),
    [path.join(WEB, 'server/prepare.ts'), ...(demo ? ['--demo'] : [])],
    {
      cwd: ROOT,
      quiet: true,
      env: { ...process.env, DATABASE_URL: url },
    },
  );
  // What the user can mend is said in a sentence.
  if (done.status === 3) throw new Stop(done.output.trim().split('\n').at(-1));
  if (done.status !== 0)
    throw new Stop(
      `The database could not be brought up to date:\n${done.output.trim().split('\n').slice(-12).join('\n')}`,
    );
}

/** Serves the production build on loopback; resolves when it answers. */
export async function serve(url, port) {
  let log = '';
  const child = spawn(
    process.execPath,
    [
      '--import',
      path.join(WEB, 'server/http/early.mjs'),
      path.join(ROOT, 'node_modules/next/dist/bin/next'),
      'start',
      '-H',
      '127.0.0.1',
      '-p',
      `${port}`,
    ],
    {
      cwd: WEB,
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        DATABASE_URL: url,
        NODE_ENV: 'production',
        NEXT_TELEMETRY_DISABLED: '1',
        [MARK[0]]: MARK[1],
      },
    },
  );
  const keep = (d) => {
    log = (log + d).slice(-20_000);
    if (process.env.MAYPOLE_LOG) process.stderr.write(d);
  };
  child.stdout.on('data', keep);
  child.stderr.on('data', keep);
  let ended = false;
  child.on('exit', () => (ended = true));
  const address = `http://127.0.0.1:${port}`;
  const up = await waitFor(async () => {
    if (ended) return true;
    return fetch(`${address}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
  }, 60_000);
  if (!up || ended) {
    await endProcess(child.pid);
    throw new Stop(`The application did not start:\n${log.trim().split('\n').slice(-12).join('\n')}`);
  }
  return {
    address,
    pid: child.pid,
    onExit: (fn) => child.on('exit', fn),
    log: () => log,
    stop: () => endProcess(child.pid),
  };
}

/** An application that runs already, as if it had been started here; undefined where it does not answer. */
export async function adopted({ application, address }) {
  const answers = await fetch(`${address}/api/health`, { signal: globalThis.AbortSignal.timeout(5000) }).then(
    // Its database may be what is missing.
    (r) => r.ok || r.status === 503,
    () => false,
  );
  if (!answers) return undefined;
  return {
    address,
    pid: application.pid,
    onExit: (fn) =>
      void (async () => {
        while (isSame(application)) await pause(500);
        fn();
      })(),
    log: () => '',
    stop: () => (isSame(application) ? endProcess(application.pid) : undefined),
  };
}
