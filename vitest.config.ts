import path from 'node:path';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': path.resolve(import.meta.dirname, 'web') } },
  test: {
    include: ['core/**/*.test.ts', 'web/**/*.test.ts', 'tools/**/*.test.ts'],
    testTimeout: 60_000,
  },
});
