import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, utimesSync } from 'node:fs';
import path from 'node:path';
import { bundle, hashOf } from './bundle.mjs';
import { BIN, ROOT } from './paths.mjs';
import { runProgram } from './processes.mjs';

/** Programs behind commands, and the threads that some of them start. */
const SOURCES = {
  check: 'tools/check.ts',
  draw: 'tools/draw.ts',
  render: 'tools/render.ts',
  work: 'tools/work.ts',
  'trace-worker': 'render/frame/trace-worker.ts',
  'renew-server': 'render/work/renew-server.ts',
};
const KEPT = path.join(ROOT, 'node_modules/.cache/maypole');
/** Bundles unused for so long are removed. */
const DAYS = 30;

/** The folder with bundles of the present sources, made if necessary; undefined if that fails. */
async function present() {
  const tools = readdirSync(path.join(ROOT, 'tools')).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'));
  const hash = hashOf(['core', 'render', ...tools.map((f) => `tools/${f}`)].map((p) => path.join(ROOT, p)));
  const folder = path.join(KEPT, hash.slice(0, 16));
  if (existsSync(folder)) {
    const now = new Date();
    try {
      utimesSync(folder, now, now);
    } catch {
      // It belongs to somebody else.
    }
    return folder;
  }
  // Another command may be doing the same: the first to finish serves both.
  const making = `${folder}-${process.pid}`;
  try {
    mkdirSync(making, { recursive: true });
    for (const other of readdirSync(KEPT).map((name) => path.join(KEPT, name)))
      if (Date.now() - statSync(other).mtimeMs > DAYS * 86_400_000) rmSync(other, { recursive: true, force: true });
    if ((await bundle(SOURCES, making)).status !== 0) return undefined;
    renameSync(making, folder);
  } catch {
    return existsSync(folder) ? folder : undefined;
  } finally {
    rmSync(making, { recursive: true, force: true });
  }
  return folder;
}

/**
 * Runs the program behind a command. It is bundled once for each state of the sources: reading them one by one takes
 * four seconds each time, and again for each thread.
 */
export async function runTool(name, args, options = {}) {
  const folder = await present();
  return folder
    ? runProgram(process.execPath, [path.join(folder, `${name}.mjs`), ...args], options)
    : runProgram(path.join(BIN, 'tsx'), [path.join(ROOT, SOURCES[name]), ...args], options);
}
