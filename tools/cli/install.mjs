import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from './paths.mjs';
import { runProgram } from './processes.mjs';
import { say, Stop } from './say.mjs';

/** Installs the Debian packages of missing programs. `wanted` maps a file to its package. */
export async function ensureDebian(wanted) {
  const packages = [
    ...new Set(
      Object.entries(wanted)
        .filter(([file]) => !existsSync(file))
        .map(([, name]) => name),
    ),
  ];
  if (packages.length === 0) return;
  const list = packages.join(' ');
  const byHand = `Install it yourself (apt-get install ${list}), then try again.`;
  if (!existsSync('/usr/bin/apt-get'))
    throw new Stop(`Maypole needs ${list} from Debian's packages, and there is no apt-get here. ${byHand}`);
  const root = process.getuid() === 0;
  if (!root && !existsSync('/usr/bin/sudo'))
    throw new Stop(`Maypole needs ${list}, and may not install it: you are not root and there is no sudo. ${byHand}`);
  say(`Installing ${list} from Debian's packages…`);
  const apt = (...args) => {
    const [program, ...rest] = root
      ? ['apt-get', ...args]
      : ['sudo', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args];
    return runProgram(program, rest, { quiet: true, env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  };
  await apt('update', '-q');
  const done = await apt('install', '-q', '-y', '--no-install-recommends', ...packages);
  const missing = Object.keys(wanted).filter((file) => !existsSync(file));
  if (done.status !== 0 || missing.length > 0)
    throw new Stop(
      `Debian's ${list} could not be installed (${done.output.trim().split('\n').at(-1) ?? 'no reason given'}). ${byHand}`,
    );
}

/** Installs the npm packages of the lock file, unless exactly these are there. */
export async function ensureNpm() {
  const stamp = path.join(ROOT, 'node_modules/.maypole-lock');
  const hash = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .update(process.version)
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  say('Installing npm packages from the lock file…');
  const done = await runProgram('npm', ['ci', '--no-audit', '--no-fund'], { cwd: ROOT, quiet: true }).catch((error) => {
    throw new Stop(
      error.code === 'ENOENT'
        ? 'Maypole needs npm, and there is none here. Install it (Debian: apt-get install npm), then try again.'
        : String(error),
    );
  });
  if (done.status !== 0)
    throw new Stop(`The npm packages could not be installed:\n${done.output.trim().split('\n').slice(-6).join('\n')}`);
  writeFileSync(stamp, hash);
}
