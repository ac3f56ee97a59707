import path from 'node:path';
import { ensureNpm } from './install.mjs';
import { BIN, ROOT } from './paths.mjs';
import { runProgram } from './processes.mjs';

/** Trials that try to break a Maypole in a folder of its own; exit status 1 if they could. */
export async function run(args) {
  await ensureNpm();
  const { status } = await runProgram(path.join(BIN, 'tsx'), [path.join(ROOT, 'trials/run.ts'), ...args], {
    cwd: ROOT,
  });
  process.exitCode = status;
}
