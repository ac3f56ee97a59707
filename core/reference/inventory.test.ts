import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { PIECE_VERSION } from '../piece/piece';
import { inventory } from './inventory';

const kept = (version: number) =>
  readFileSync(path.join(import.meta.dirname, `../fixtures/version-${version}/declared.txt`), 'utf8')
    .trim()
    .split('\n');

describe('what a document may say', () => {
  it('is what was declared for its version; anything declared anew raises PIECE_VERSION', () => {
    const before = new Set(kept(PIECE_VERSION));
    const now = new Set(inventory());
    const added = [...now].filter((line) => !before.has(line));
    const gone = [...before].filter((line) => !now.has(line));
    // Where this fails: raise PIECE_VERSION, write the migration in core/piece/versions, and `npm run docs`.
    expect({ added, gone }).toEqual({ added: [], gone: [] });
  });

  it('lists every line once', () => {
    const lines = inventory();
    expect(new Set(lines).size).toBe(lines.length);
    expect(lines.length).toBeGreaterThan(500);
  });
});
