import { readdirSync } from 'node:fs';
import path from 'node:path';
import { ensureNpm } from './install.mjs';
import { ROOT } from './paths.mjs';
import { runTool } from './program.mjs';

/** The demo pieces that come with Maypole, in order. */
function demoFiles() {
  const folder = path.join(ROOT, 'demo');
  return readdirSync(folder)
    .filter((f) => f.endsWith('.json'))
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
    .map((f) => path.join(folder, f));
}

export async function run(args) {
  await ensureNpm();
  const { status } = await runTool(
    'check',
    args.flatMap((a) => (a === '--demo' ? demoFiles() : [a])),
  );
  process.exitCode = status;
}
