import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureDebian, ensureNpm } from './install.mjs';
import { runTool } from './program.mjs';
import { say, Stop, takeOption } from './say.mjs';

const CHROMIUM = '/usr/bin/chromium';

/** Joins the renders of a remote server: true light in Node.js, quick light in a headless browser. */
export async function run(args) {
  const server = takeOption(args, '--server');
  const key = takeOption(args, '--key') ?? process.env.MAYPOLE_KEY;
  const threads = takeOption(args, '--threads');
  const light = takeOption(args, '--light') ?? 'true';
  const name = takeOption(args, '--name') ?? os.hostname();
  if (args.length > 0)
    throw new Stop(`work does not know “${args[0]}”; it takes --server, --key, --threads, --light and --name.`, 2);
  if (!server || !URL.canParse(server) || !/^https?:/.test(server))
    throw new Stop('Say which server: --server https://maypole.studio.example.', 2);
  if (!key) throw new Stop('Show a key: --key KEY, or MAYPOLE_KEY. The owner makes one under Renders, Machines.', 2);
  if (light !== 'true' && light !== 'quick') throw new Stop(`--light ${light} should be true or quick.`, 2);
  if (threads !== undefined && !(Number.isInteger(Number(threads)) && Number(threads) > 0))
    throw new Stop(`--threads ${threads} should be a whole number from 1.`, 2);
  await ensureNpm();
  if (light === 'quick') {
    await ensureDebian({ [CHROMIUM]: 'chromium' });
    return lendBrowser(new URL(server), key, name);
  }
  const { status } = await runTool('work', [], {
    env: {
      ...process.env,
      MAYPOLE_SERVER: server,
      MAYPOLE_KEY: key,
      MAYPOLE_THREADS: threads ?? '',
      MAYPOLE_NAME: name,
    },
  });
  process.exitCode = status;
}

/**
 * Opens the server's drawing page. The key is in the fragment, which is never sent, and in a file that nobody else may
 * read, because everybody on the machine can see a command line.
 */
async function lendBrowser(server, key, name) {
  const page = new URL('/lend', server);
  page.hash = new URLSearchParams({ key, name }).toString();
  // A separate profile: with the user's own, the command would only open a tab in a running browser.
  const profile = mkdtempSync(path.join(os.tmpdir(), 'maypole-lend-'));
  const begin = path.join(profile, 'begin.html');
  writeFileSync(begin, `<!doctype html><script>location.replace(${JSON.stringify(page.href)})</script>`, {
    mode: 0o600,
  });
  const child = spawn(
    CHROMIUM,
    [
      ...['--headless=new', '--no-first-run', '--no-default-browser-check', '--disable-extensions'],
      ...(process.getuid() === 0 ? ['--no-sandbox'] : []),
      ...['--enable-unsafe-swiftshader', `--user-data-dir=${profile}`, pathToFileURL(begin).href],
    ],
    { stdio: 'ignore' },
  );
  say(`A browser without a window draws quick light for ${server.origin}. Ctrl-C ends it.`);
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill('SIGTERM'));
  process.exitCode = await new Promise((resolve) => child.on('exit', (status) => resolve(status ?? 0)));
  rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
}
