import { spawn } from 'node:child_process';
import { readdirSync, rmSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import path from 'node:path';
import { isBuilt } from './build.mjs';
import { makeFolder } from './folders.mjs';
import { isSame } from './identity.mjs';
import { BIN, DATA, PROGRAMS, ROOT, WEB } from './paths.mjs';
import { endProcess, pause, runProgram, waitFor } from './processes.mjs';
import { MARK } from './running.mjs';
import { Stop } from './say.mjs';

/**
 * Runs one of our programs on the database: as built, or from source if the build is of other sources, which takes two
 * seconds more.
 */
function runOurs(built, source, args, url) {
  const [program, ...before] = isBuilt() ? [process.execPath, built] : [path.join(BIN, 'tsx'), path.join(WEB, source)];
  return runProgram(program, [...before, ...args], {
    cwd: ROOT,
    quiet: true,
    env: { ...process.env, DATABASE_URL: url },
  });
}

/** Migrates the database; fills an empty one with the demo pieces if asked. */
export async function prepareDatabase(url, demo) {
  const done = await runOurs(PROGRAMS.prepare, 'server/data/prepare.ts', demo ? ['--demo'] : [], url);
  // Faults that the user can fix are a sentence.
  if (done.status === 3) throw new Stop(done.output.trim().split('\n').at(-1));
  if (done.status !== 0)
    throw new Stop(
      `The database could not be brought up to date:\n${done.output.trim().split('\n').slice(-12).join('\n')}`,
    );
}

/** A link by which the owner creates an account; undefined if there is an owner. */
export async function linkForOwner(url, address) {
  const done = await runOurs(PROGRAMS.ownerLink, 'server/people/owner-link.ts', [], url);
  if (done.status !== 0)
    throw new Stop(`No link for the owner could be made:\n${done.output.trim().split('\n').at(-1)}`);
  const token = done.output.trim();
  return token ? `${address}/enter?invite=${token}` : undefined;
}

/**
 * Serves the production build; resolves when it answers.
 *
 * @param opening how it is open to others (see opening.mjs); on loopback alone without it
 * @param temporary a folder of its own for what lasts as long as a request; that of the machine without it
 */
export async function serve(url, port, opening = {}, temporary = undefined) {
  let log = '';
  const child = spawn(process.execPath, ['--enable-source-maps', PROGRAMS.front], {
    cwd: WEB,
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      MAYPOLE_OPEN: '',
      ...opening.env,
      DATABASE_URL: url,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      MAYPOLE_PORT: `${port}`,
      MAYPOLE_JOBS: PROGRAMS.jobs,
      MAYPOLE_WORK: PROGRAMS.work,
      MAYPOLE_RENDERS: process.env.MAYPOLE_RENDERS ?? path.join(DATA, 'renders'),
      ...(temporary ? { TMPDIR: emptied(temporary) } : {}),
      [MARK[0]]: MARK[1],
    },
  });
  const keep = (d) => {
    log = (log + d).slice(-20_000);
    if (process.env.MAYPOLE_LOG) process.stderr.write(d);
  };
  child.stdout.on('data', keep);
  child.stderr.on('data', keep);
  let ended = false;
  child.on('exit', () => (ended = true));
  const local = `${opening.tls ? 'https' : 'http'}://127.0.0.1:${port}`;
  const up = await waitFor(async () => ended || (await health(local)) === 200, 60_000);
  if (!up || ended) {
    await endProcess(child.pid);
    throw new Stop(`The application did not start:\n${log.trim().split('\n').slice(-12).join('\n')}`);
  }
  return {
    address: opening.address?.(port) ?? local,
    local,
    pid: child.pid,
    onExit: (fn) => child.on('exit', fn),
    log: () => log,
    stop: () => endProcess(child.pid),
  };
}

/** Temporary files of requests (web/server/http/body.ts), and nothing else. */
const OF_REQUESTS = /^maypole-body-/;

/** A folder for temporary files of requests; removes what a killed application left there. */
function emptied(folder) {
  makeFolder(folder);
  for (const name of readdirSync(folder))
    if (OF_REQUESTS.test(name)) rmSync(path.join(folder, name), { recursive: true, force: true });
  return folder;
}

/** HTTP status of its health on loopback; undefined without an answer. Its certificate is for others. */
export function health(local) {
  if (local === undefined) return Promise.resolve(undefined);
  return new Promise((resolve) => {
    const request = (local.startsWith('https') ? https : http).get(
      `${local}/api/health`,
      { rejectUnauthorized: false, timeout: 5000 },
      (response) => {
        response.resume();
        resolve(response.statusCode);
      },
    );
    request.on('timeout', () => request.destroy());
    request.on('error', () => resolve(undefined));
  });
}

/** An application that is already running, as if it had been started here; undefined if it does not answer. */
export async function adopted({ application, address, local }) {
  // It may lack only its database.
  if (![200, 503].includes(await health(local))) return undefined;
  return {
    address,
    local,
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
