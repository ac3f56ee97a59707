import path from 'node:path';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': path.resolve(import.meta.dirname, 'web') } },
  test: {
    include: [
      'core/**/*.test.ts',
      'render/**/*.test.ts',
      'web/**/*.test.ts',
      'tools/**/*.test.ts',
      'trials/**/*.test.ts',
    ],
    testTimeout: 60_000,
    // As end to end: on a machine that has other work a test may miss its time; it is named at the end then.
    retry: process.env.CI ? 1 : 0,
    env: { MAYPOLE_JOBS: path.resolve(import.meta.dirname, 'web/server/jobs/process.mjs') },
    // Files share what they import, which is half the time otherwise; each test sets up what it needs.
    pool: 'threads',
    isolate: false,
    setupFiles: ['tools/stand-ins.ts'],
    maxWorkers: 2,
  },
});
