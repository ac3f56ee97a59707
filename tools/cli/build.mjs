import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { bundle, hashOf } from './bundle.mjs';
import { BIN, PROGRAMS, ROOT, WEB } from './paths.mjs';
import { runProgram } from './processes.mjs';
import { runningInstance } from './running.mjs';
import { say, Stop } from './say.mjs';

/** A hash of everything that the build depends on. */
const sourceHash = () => hashOf([path.join(ROOT, 'core'), path.join(ROOT, 'render'), WEB]);

/**
 * Bundles the programs beside the pages: gateway, job processes, render worker and its threads, database preparation.
 */
const buildPrograms = () =>
  bundle(
    {
      front: 'web/server/gateway/serve.ts',
      jobs: 'web/server/jobs/process.ts',
      work: 'web/server/render/process.ts',
      prepare: 'web/server/data/prepare.ts',
      'owner-link': 'web/server/people/owner-link.ts',
      'trace-worker': 'render/frame/trace-worker.ts',
      'renew-database': 'web/server/render/renew-database.ts',
    },
    path.dirname(PROGRAMS.front),
  );

const STAMP = path.join(WEB, '.next/maypole-sources');

/** Whether the last build was made from the present sources. */
export function isBuilt(hash = sourceHash()) {
  return existsSync(STAMP) && readFileSync(STAMP, 'utf8') === hash;
}

/** Builds the application unless the last build was made from the same sources. */
export async function ensureBuild() {
  const hash = sourceHash();
  if (isBuilt(hash)) return;
  const running = runningInstance();
  if (running)
    throw new Stop(
      `Maypole runs at ${running.address} from the build that is to be replaced; end it with ./maypole stop, then try again.`,
    );
  say('Building the application…');
  // An interrupted build has no stamp.
  rmSync(STAMP, { force: true });
  const build = () =>
    runProgram(path.join(BIN, 'next'), ['build'], {
      cwd: WEB,
      quiet: true,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    });
  const folder = path.join(WEB, '.next');
  const before = existsSync(folder);
  let done = await build();
  if (done.status !== 0 && before) {
    // Remains of an interrupted build can break the next one.
    rmSync(folder, { recursive: true, force: true });
    done = await build();
  }
  if (done.status === 0) done = await buildPrograms();
  if (done.status !== 0)
    throw new Stop(`The application could not be built:\n${done.output.trim().split('\n').slice(-40).join('\n')}`);
  writeFileSync(STAMP, hash);
}
