/**
 * Runs before each file of tests. Files share what they import, so a module that one file puts a stand-in for would
 * stay with all that come after it in the same thread, in an order that is another every time. A file with stand-ins
 * begins with nothing loaded, and leaves nothing behind.
 */
import { readFileSync } from 'node:fs';
import { afterAll, expect, vi } from 'vitest';

const { testPath } = expect.getState();
if (!testPath) throw new Error('Vitest does not tell which file it runs.');
if (/\bvi\.(doMock|mock)\(/.test(readFileSync(testPath, 'utf8'))) {
  vi.resetModules();
  afterAll(() => vi.resetModules());
}
