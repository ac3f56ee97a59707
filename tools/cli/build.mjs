import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { BIN, PROGRAMS, ROOT, WEB } from './paths.mjs';
import { runProgram } from './processes.mjs';
import { runningInstance } from './running.mjs';
import { say, Stop } from './say.mjs';

const SKIP = new Set(['node_modules', '.next', 'migrations']);

function sources(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (SKIP.has(entry.name)) return [];
    const full = path.join(folder, entry.name);
    return entry.isDirectory()
      ? sources(full)
      : /\.(ts|tsx|css|json|svg|woff2)$/.test(entry.name) &&
          !/\.test\.ts$/.test(entry.name) &&
          entry.name !== 'next-env.d.ts'
        ? [full]
        : [];
  });
}

/** A fingerprint of everything the build is made from. */
function sourceHash() {
  const hash = createHash('sha256');
  for (const file of [
    ...sources(path.join(ROOT, 'core')),
    ...sources(path.join(ROOT, 'render')),
    ...sources(WEB),
    path.join(ROOT, 'package-lock.json'),
  ].sort()) {
    hash.update(path.relative(ROOT, file)).update('\0').update(readFileSync(file)).update('\0');
  }
  return hash.digest('hex');
}

/** What runs beside the pages, and before them: the way in, the processes of jobs, the worker of renders and its threads, what makes the database ready. Libraries stay where they are. */
async function buildPrograms() {
  const { build } = await import('esbuild');
  return build({
    absWorkingDir: ROOT,
    entryPoints: {
      front: 'web/server/front/serve.ts',
      jobs: 'web/server/jobs/process.ts',
      work: 'web/server/render/process.ts',
      prepare: 'web/server/prepare.ts',
      'owner-link': 'web/server/people/owner-link.ts',
      'trace-worker': 'render/frame/trace-worker.ts',
    },
    outdir: path.dirname(PROGRAMS.front),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'silent',
    plugins: [
      {
        name: 'libraries',
        setup: ({ onResolve }) =>
          void onResolve({ filter: /^[^./]/ }, ({ path: name, kind }) =>
            kind === 'entry-point' || name.startsWith('@maypole/') || name.startsWith('@/')
              ? undefined
              : { external: true },
          ),
      },
    ],
  }).then(
    () => ({ status: 0, output: '' }),
    (error) => ({ status: 1, output: error.message }),
  );
}

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
  // A build that is broken off has none, whatever it is of.
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
    // What a build that was broken off has left can break the next one.
    rmSync(folder, { recursive: true, force: true });
    done = await build();
  }
  if (done.status === 0) done = await buildPrograms();
  if (done.status !== 0)
    throw new Stop(`The application could not be built:\n${done.output.trim().split('\n').slice(-40).join('\n')}`);
  writeFileSync(STAMP, hash);
}
