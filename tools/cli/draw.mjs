import { ensureNpm } from './install.mjs';
import { runTool } from './program.mjs';

export async function run(args) {
  await ensureNpm();
  const { status } = await runTool('draw', args);
  process.exitCode = status;
}
