import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { defineConfig } from 'vitest/config';

const root = import.meta.dirname;
const PASSED_OVER = new Set(['node_modules', '.next']);

/** All files of tests below a folder. */
function testsBelow(folder: string): string[] {
  return readdirSync(path.join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const name = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return PASSED_OVER.has(entry.name) ? [] : testsBelow(name);
    return name.endsWith('.test.ts') ? [name] : [];
  });
}

const files = ['core', 'render', 'web', 'tools', 'trials'].flatMap(testsBelow);
/** Those that put stand-ins for modules. */
const standIns = files.filter((file) => /\bvi\.(doMock|mock)\(/.test(readFileSync(path.join(root, file), 'utf8')));

export default defineConfig({
  resolve: { alias: { '@': path.resolve(root, 'web') } },
  test: {
    // What hangs ends after it; no test is to hang on the speed of a machine.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // As end to end: on a machine that has other work a test may miss its time; it is named at the end then.
    retry: process.env.CI ? 1 : 0,
    env: { MAYPOLE_JOBS: path.resolve(root, 'web/server/jobs/process.mjs') },
    pool: 'threads',
    maxWorkers: 2,
    projects: [
      // Files share what they import, which is half the time otherwise; each test sets up what it needs.
      { extends: true, test: { name: 'all', include: files.filter((f) => !standIns.includes(f)), isolate: false } },
      // A stand-in for a module would stay with all that come after, in an order that is another every time.
      { extends: true, test: { name: 'with stand-ins', include: standIns, isolate: true } },
    ],
  },
});
