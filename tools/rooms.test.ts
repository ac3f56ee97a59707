import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = path.join(import.meta.dirname, '..');
const SKIP = new Set(['node_modules', '.next', 'migrations']);

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((e) => {
    const full = path.join(folder, e.name);
    if (e.isDirectory()) return SKIP.has(e.name) ? [] : sources(full);
    return /(?<!\.d|\.test)\.tsx?$/.test(e.name) ? [full] : [];
  });
}

const files = new Set([...sources(path.join(ROOT, 'core')), ...sources(path.join(ROOT, 'web'))]);

/** The file an import names; null for a library. */
function target(from: string, name: string): string | null {
  const base = name.startsWith('@maypole/core/')
    ? path.join(ROOT, 'core', name.slice(14))
    : name.startsWith('@/')
      ? path.join(ROOT, 'web', name.slice(2))
      : name.startsWith('.')
        ? path.join(path.dirname(from), name)
        : null;
  return base === null
    ? null
    : (['.ts', '.tsx', '/index.ts'].map((end) => base + end).find((f) => files.has(f)) ?? null);
}

/** What each file imports, types too: a type that leads round in a circle is a word without a home. */
const graph = new Map(
  [...files].map((file) => [
    file,
    new Set(
      [...readFileSync(file, 'utf8').matchAll(/\bfrom\s*'([^']+)'|\bimport\('([^']+)'\)/g)].flatMap(
        (m) => target(file, m[1] ?? m[2]) ?? [],
      ),
    ),
  ]),
);

/** Circles of imports: strongly connected components of more than one file (R. Tarjan, 1972). */
function circles(of: ReadonlyMap<string, ReadonlySet<string>>): string[][] {
  const index = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const on = new Set<string>();
  const out: string[][] = [];
  const visit = (file: string): void => {
    index.set(file, index.size);
    low.set(file, index.get(file)!);
    stack.push(file);
    on.add(file);
    for (const next of of.get(file) ?? []) {
      if (!index.has(next)) visit(next);
      if (on.has(next)) low.set(file, Math.min(low.get(file)!, low.get(next)!));
    }
    if (low.get(file) !== index.get(file)) return;
    const found: string[] = [];
    let last: string;
    do {
      last = stack.pop()!;
      on.delete(last);
      found.push(last);
    } while (last !== file);
    if (found.length > 1) out.push(found);
  };
  for (const file of of.keys()) if (!index.has(file)) visit(file);
  return out;
}

const short = (file: string) => path.relative(ROOT, file);

describe('the rooms of the code', () => {
  it('a circle is found where there is one', () => {
    const of = new Map([
      ['a', new Set(['b'])],
      ['b', new Set(['c'])],
      ['c', new Set(['a', 'd'])],
      ['d', new Set<string>()],
    ]);
    expect(circles(of).map((c) => c.sort())).toEqual([['a', 'b', 'c']]);
  });
  it('have no circles of imports', () => {
    expect(files.size).toBeGreaterThan(300);
    expect(circles(graph).map((c) => c.map(short))).toEqual([]);
  });
  it('lead one way: app → ui → engine and view → core, server → core, and what ui and server share is in contract', () => {
    const room = (file: string) => (short(file).startsWith('core/') ? 'core' : short(file).split('/')[1]);
    const may: Record<string, readonly string[]> = {
      core: ['core'],
      view: ['view', 'core'],
      engine: ['engine', 'view', 'contract', 'core'],
      contract: ['contract', 'core'],
      ui: ['ui', 'engine', 'view', 'contract', 'core'],
      server: ['server', 'contract', 'core'],
    };
    const wrong = [...graph].flatMap(([file, to]) =>
      [...to]
        .filter((t) => may[room(file)] && !may[room(file)].includes(room(t)))
        .map((t) => `${short(file)} → ${short(t)}`),
    );
    expect(wrong).toEqual([]);
  });
  it('form layers in core: no folder depends on itself by way of others', () => {
    const folder = (file: string) => short(file).split('/')[1];
    const between = new Map<string, Set<string>>();
    for (const [file, to] of graph) {
      if (!short(file).startsWith('core/')) continue;
      const set = between.get(folder(file)) ?? between.set(folder(file), new Set()).get(folder(file))!;
      for (const t of to) if (folder(t) !== folder(file)) set.add(folder(t));
    }
    expect(between.size).toBeGreaterThan(20);
    expect(circles(between)).toEqual([]);
  });
  it('hold at most 40 files each', () => {
    const counts = new Map<string, number>();
    for (const file of files) counts.set(path.dirname(file), (counts.get(path.dirname(file)) ?? 0) + 1);
    expect([...counts].filter(([, n]) => n > 40).map(([folder]) => short(folder))).toEqual([]);
  });
});
