import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = path.join(import.meta.dirname, '..');
const DOCS = [
  'README.md',
  ...readdirSync(path.join(ROOT, 'docs')).flatMap((f) => (f.endsWith('.md') ? `docs/${f}` : [])),
];
const read = (file: string) => readFileSync(path.join(ROOT, file), 'utf8');

/** Text between backticks, outside of code blocks. */
const quoted = (text: string) => [...text.replace(/```.*?```/gs, '').matchAll(/`([^`\n]+)`/g)].map((m) => m[1]);

function sources(folder: string): string[] {
  return readdirSync(path.join(ROOT, folder), { withFileTypes: true }).flatMap((e) => {
    const file = `${folder}/${e.name}`;
    if (e.isDirectory()) return /^(node_modules|\.next)$/.test(e.name) ? [] : sources(file);
    return /\.(ts|tsx|mjs)$/.test(e.name) && !e.name.startsWith('named-in-docs') ? [file] : [];
  });
}

const code = ['core', 'render', 'web', 'tools'].flatMap(sources);
/** Words of the code itself: what only a comment says does not count. */
const words = new Set(
  code.flatMap(
    (f) =>
      read(f)
        .replace(/\/\*.*?\*\/|(?<=^|\s)\/\/.*?$/gms, '')
        .match(/[A-Za-z_]\w*/g) ?? [],
  ),
);

describe('what docs name', () => {
  it.each(DOCS)('%s names only paths that are there', (doc) => {
    const gone = quoted(read(doc)).filter(
      (p) =>
        /^(core|render|web|tools|docs|e2e|bench|trials|demo)\/[\w./-]*$/.test(p) && !existsSync(path.join(ROOT, p)),
    );
    expect(gone).toEqual([]);
  });

  it.each(DOCS)('%s names only tests that are there', (doc) => {
    const tests = new Set(code.map((f) => path.basename(f)));
    const gone = [...read(doc).matchAll(/[\w-]+\.test\b/g)].map((m) => m[0]).filter((t) => !tests.has(`${t}.ts`));
    expect(gone).toEqual([]);
  });

  it('are words of the code wherever the glossary says “in code”', () => {
    const rows = read('docs/glossary.md')
      .split('\n')
      .filter((line) => line.startsWith('| ') && !line.includes('---'));
    expect(rows.length).toBeGreaterThan(50);
    const named = rows.flatMap((row) => quoted(row.split('|')[2]!)).filter((word) => /^[\w]+$/.test(word));
    expect(named.length).toBeGreaterThan(50);
    expect(named.filter((word) => !words.has(word))).toEqual([]);
  });
});
