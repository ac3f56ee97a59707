import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { noticesOf, packagesOf } from './notices-of';

const root = path.join(import.meta.dirname, '..');
const written = readFileSync(path.join(root, 'NOTICES.md'), 'utf8');

describe('notices of what others have made', () => {
  const packages = packagesOf(root);
  it('name every package of the lock file that goes out, with its version and licence', () => {
    expect(packages.length).toBeGreaterThan(100);
    // Missing ones: npm run notices.
    const missing = packages.filter((p) => !written.includes(`- ${p.name} ${p.version}: ${p.license}\n`));
    expect(missing).toEqual([]);
    expect(packages.filter((p) => p.license === 'not named')).toEqual([]);
  });
  it('name none that does not', () => {
    const listed = written.split('\n').filter((line) => /^- .+ \S+: /.test(line));
    expect(listed).toHaveLength(new Set(packages.map((p) => `${p.name} ${p.version}`)).size);
    expect(packages.some((p) => p.name === 'vitest')).toBe(false);
  });
  it('have each licence once, with all it is of', () => {
    const three = packages.filter((p) => p.name === 'three');
    const text = noticesOf(three, root);
    expect(text).toContain('## three ');
    expect(text).toContain('    Copyright');
    expect(written).toContain('three.js authors');
  });
});
