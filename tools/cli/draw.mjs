import path from 'node:path';
import { ensureNpm } from './install.mjs';
import { BIN, ROOT } from './paths.mjs';
import { runProgram } from './processes.mjs';

export async function run(args) {
  await ensureNpm();
  const { status } = await runProgram(path.join(BIN, 'tsx'), [path.join(ROOT, 'tools/draw.ts'), ...args]);
  process.exitCode = status;
}
