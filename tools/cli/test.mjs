import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { prepareDatabase, serve } from './application.mjs';
import { ensureBuild } from './build.mjs';
import { Cluster } from './database.mjs';
import { ensureDebian, ensureNpm } from './install.mjs';
import { BIN, ROOT } from './paths.mjs';
import { freePort } from './ports.mjs';
import { runProgram } from './processes.mjs';
import { say, Stop } from './say.mjs';

/** Cache of static checks. */
const CACHE = path.join(ROOT, 'node_modules', '.cache', 'maypole-test');
const tsc = (project) => [
  `types: ${project}`,
  path.join(BIN, 'tsc'),
  ['-p', project, '--incremental', '--tsBuildInfoFile', path.join(CACHE, `${path.basename(project)}.tsbuildinfo`)],
];
/** Static checks, slowest first; core separately, because it may depend on no platform. */
const CHECKS = [
  tsc('web'),
  tsc('tsconfig.tools.json'),
  [
    'lint',
    path.join(BIN, 'eslint'),
    [
      '--max-warnings',
      '0',
      '--cache',
      '--cache-strategy',
      'content',
      '--cache-location',
      path.join(CACHE, 'eslint'),
      '.',
    ],
  ],
  [
    'format',
    path.join(BIN, 'prettier'),
    [
      '--check',
      '--log-level',
      'warn',
      '--cache',
      '--cache-location',
      path.join(CACHE, 'prettier'),
      '**/*.{ts,tsx,mjs}',
    ],
  ],
  // Exports that nobody imports, and files that nothing reaches.
  ['unused exports', path.join(BIN, 'knip'), ['--no-progress']],
  tsc('core'),
];
/** With everything that takes long: rules that need types. */
const LONG_CHECKS = [
  [
    'lint with types',
    path.join(BIN, 'eslint'),
    ['-c', 'eslint.types.config.mjs', '--max-warnings', '0', 'core', 'render', 'web'],
  ],
];

/** What tests call, by the package of Debian that has it. */
const PROGRAMS = {
  '/usr/bin/chromium': 'chromium',
  '/usr/bin/ffprobe': 'ffmpeg',
  '/usr/bin/oiiotool': 'openimageio-tools',
  '/usr/bin/exrheader': 'openexr',
  '/usr/bin/exiftool': 'libimage-exiftool-perl',
  '/usr/bin/openssl': 'openssl',
};
/** Other browsers are looked at with everything that takes long. */
const OTHER_BROWSERS = {
  '/usr/bin/firefox-esr': 'firefox-esr',
  '/usr/bin/Xvfb': 'xvfb',
  '/usr/share/glvnd/egl_vendor.d/50_mesa.json': 'libegl1',
};

/** What a run found: counts, where it failed, and the reports of both kinds of tests. */
class Tally {
  passed = 0;
  failed = 0;
  where = [];
  /** Passed at the second try only. */
  unsteady = [];
  broken = [];
  reports = {};

  count(what, passed, failed) {
    this.passed += passed;
    this.failed += failed;
    if (failed > 0) this.where.push(what);
  }

  tell() {
    say(`\nslowest files:\n${slowest(this.reports.unit, this.reports.e2e)}`);
    // A failure may have scrolled by long ago.
    if (this.broken.length > 0) say(`\nfailed:\n${this.broken.join('\n')}`);
    const where = this.where.length > 0 ? ` (${this.where.join('; ')})` : '';
    if (this.unsteady.length > 0) say(`\npassed at the second try only: ${this.unsteady.join('; ')}`);
    say(`\n${this.passed} passed, ${this.failed} failed${where}`);
  }
}

export async function run(args) {
  const { which, busy, throttle, atLength } = readArgs(args);
  if (atLength) process.env.MAYPOLE_AT_LENGTH = '1';
  await ensureNpm();
  await ensureDebian({ ...PROGRAMS, ...(atLength && which !== 'unit' ? OTHER_BROWSERS : {}) });
  const scratch = mkdtempSync(path.join(os.tmpdir(), 'maypole-test-'));
  chmodSync(scratch, 0o755);
  // Everything that tests leave behind is removed with it; the database's user reads and writes there too.
  const temporary = path.join(scratch, 'tmp');
  mkdirSync(temporary);
  chmodSync(temporary, 0o1777);
  process.env.MAYPOLE_RENDERS = path.join(scratch, 'renders');
  const cluster = new Cluster(path.join(scratch, 'database'));
  const tally = new Tally();
  const applications = [];
  const end = async () => {
    for (const application of applications) await application.stop();
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  };
  process.on('SIGINT', () => void end().then(() => process.exit(130)));
  const loops = busyLoops(busy);
  try {
    const url = await cluster.start();
    await prepareDatabase(url, false);
    const env = {
      ...process.env,
      TMPDIR: temporary,
      DATABASE_URL: url,
      CI: '1',
      NEXT_TELEMETRY_DISABLED: '1',
      MAYPOLE_THROTTLE: `${throttle}`,
    };
    if (which !== 'e2e') {
      await runChecks(tally, env, { atLength, withBuild: which === 'all' });
      await runUnit(tally, env, scratch);
    }
    if (which !== 'unit') {
      await ensureBuild();
      // Each lane has an untouched database: the story begins with an empty shelf.
      for (const lane of ['first', 'second']) {
        process.env.MAYPOLE_RENDERS = path.join(scratch, `renders-${lane}`);
        const fresh = await cluster.another(lane);
        await prepareDatabase(fresh, false);
        applications.push(await serve(fresh, await freePort()));
      }
      const [first, second] = applications.map((application) => application.address);
      await runEndToEnd(tally, { ...env, MAYPOLE_ADDRESS: first, MAYPOLE_ADDRESS_2: second }, scratch);
    }
  } finally {
    for (const loop of loops) loop.kill();
    await end();
  }
  tally.tell();
  process.exitCode = tally.failed > 0 ? 1 : 0;
}

/** Static checks: each takes one core, so as many run side by side as there are cores, the build among them. */
async function runChecks(tally, env, { atLength, withBuild }) {
  await ensureBuildTypes(env);
  const checked = [...(atLength ? LONG_CHECKS : []), ...CHECKS].map(([name, program, programArgs]) => async () => {
    const { status, output } = await runProgram(program, programArgs, { cwd: ROOT, env, capture: true });
    say(`\n${name}: ${status === 0 ? 'sound' : 'faulty'}${output ? `\n${output}` : ''}`);
    tally.count(name, status === 0 ? 1 : 0, status === 0 ? 0 : 1);
  });
  await sideBySide(os.availableParallelism(), [...(withBuild ? [ensureBuild] : []), ...checked]);
}

async function runUnit(tally, env, scratch) {
  say('\nunit tests');
  const report = path.join(scratch, 'unit.json');
  const second = path.join(scratch, 'second-tries.json');
  const { status } = await runProgram(
    path.join(BIN, 'vitest'),
    [
      'run',
      '--reporter=default',
      '--reporter=json',
      `--reporter=${path.join(ROOT, 'tools', 'cli', 'second-try.mjs')}`,
      `--outputFile.json=${report}`,
    ],
    { cwd: ROOT, env: { ...env, MAYPOLE_SECOND_TRIES: second } },
  );
  const result = readReport(report);
  tally.reports.unit = result;
  tally.broken = failures(result);
  tally.unsteady.push(...(readReport(second) ?? []));
  if (status !== 0 && tally.broken.length === 0)
    tally.broken = ['something went wrong beside the tests; it is told above'];
  const failed = Math.max(result?.numFailedTests ?? 0, status === 0 ? 0 : 1);
  tally.count('unit tests', result?.numPassedTests ?? 0, failed);
}

async function runEndToEnd(tally, env, scratch) {
  say('\nend-to-end tests');
  const report = path.join(scratch, 'e2e.json');
  const { status } = await runProgram(path.join(BIN, 'playwright'), ['test', '--reporter=list,json'], {
    cwd: ROOT,
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  });
  const result = readReport(report);
  tally.reports.e2e = result;
  const stats = result?.stats;
  tally.unsteady.push(...flaky(result?.suites ?? []));
  tally.count(
    'end-to-end tests',
    (stats?.expected ?? 0) + (stats?.flaky ?? 0),
    Math.max(stats?.unexpected ?? 0, status === 0 ? 0 : 1),
  );
}

/**
 * Parses arguments: which tests, whether long ones run, how many busy loops run beside them, and how much slower the
 * browser's processor seems.
 */
function readArgs(args) {
  const asked = { which: 'all', busy: 0, throttle: 1, atLength: false };
  const rest = [...args];
  while (rest.length > 0) {
    const word = rest.shift();
    if (['all', 'unit', 'e2e'].includes(word)) asked.which = word;
    else if (word === '--all') asked.atLength = true;
    else if (['--busy', '--throttle'].includes(word)) {
      const [name, least] = word === '--busy' ? ['busy', 0] : ['throttle', 1];
      const given = rest.shift();
      const n = Number(given);
      if (given === undefined || !Number.isInteger(n) || n < least || n > 64)
        throw new Stop(`${word} takes a whole number from ${least} to 64, and not “${given ?? ''}”.`, 2);
      asked[name] = n;
    } else
      throw new Stop(
        `There are no tests called “${word}”; use unit, e2e, or nothing for both; --all for those that take long, too; --busy N or --throttle N for a slower machine.`,
        2,
      );
  }
  return asked;
}

/** Runs tasks, so many at a time. */
async function sideBySide(most, works) {
  const waiting = [...works];
  const lane = async () => {
    for (let work = waiting.shift(); work; work = waiting.shift()) await work();
  };
  await Promise.all(Array.from({ length: most }, lane));
}

/** The slowest test files. */
function slowest(unit, e2e) {
  const files = [
    ...(unit?.testResults ?? []).map((file) => [path.relative(ROOT, file.name), file.endTime - file.startTime]),
    ...(e2e?.suites ?? []).map((suite) => [`e2e/${suite.file}`, timeOf(suite)]),
  ];
  return files
    .sort((a, b) => b[1] - a[1])
    .slice(0, 10)
    .map(([name, ms]) => `${(ms / 1000).toFixed(0).padStart(5)} s  ${name}`)
    .join('\n');
}

const timeOf = (suite) =>
  (suite.suites ?? []).reduce((sum, inner) => sum + timeOf(inner), 0) +
  (suite.specs ?? []).reduce(
    (sum, spec) => sum + spec.tests.reduce((n, test) => n + test.results.reduce((m, r) => m + r.duration, 0), 0),
    0,
  );

/** Processes that keep processors busy, as other work on the machine does; they end with this one. */
function busyLoops(count) {
  const loop =
    'process.on("disconnect", () => process.exit()); (function spin() { for (let i = 0; i < 1e7; i++); setImmediate(spin); })()';
  return Array.from({ length: count }, () =>
    spawn(process.execPath, ['-e', loop], { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] }),
  );
}

/** Route types are generated; the type check of the application needs them. */
async function ensureBuildTypes(env) {
  await runProgram(path.join(BIN, 'next'), ['typegen'], { cwd: path.join(ROOT, 'web'), env, quiet: true });
}

/**
 * A line for each failed unit test: file, name and the first line of the error. Files that could not run at all have no
 * tests, and report themselves.
 */
export function failures(result) {
  const first = (message) => (message ?? '').split('\n')[0];
  return (result?.testResults ?? []).flatMap((file) => {
    const name = path.relative(ROOT, file.name);
    const failed = file.assertionResults.filter((test) => test.status === 'failed');
    if (failed.length > 0)
      return failed.map((test) => `${name} › ${test.fullName}: ${first(test.failureMessages?.[0])}`);
    return file.status === 'failed' ? [`${name}: ${first(file.message)}`] : [];
  });
}

/** Titles of tests that Playwright counts as flaky, with their files. */
function flaky(suites) {
  return suites.flatMap((suite) => [
    ...(suite.specs ?? [])
      .filter((spec) => spec.tests.some((test) => test.status === 'flaky'))
      .map((spec) => `${spec.file} › ${spec.title}`),
    ...flaky(suite.suites ?? []),
  ]);
}

function readReport(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}
