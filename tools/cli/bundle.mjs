import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from './paths.mjs';

const SKIP = new Set(['node_modules', '.next', 'migrations']);

function sources(folder) {
  if (statSync(folder).isFile()) return [folder];
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (SKIP.has(entry.name)) return [];
    const full = path.join(folder, entry.name);
    return entry.isDirectory()
      ? sources(full)
      : /\.(ts|tsx|css|json|svg|woff2)$/.test(entry.name) &&
          !/\.test\.ts$/.test(entry.name) &&
          entry.name !== 'next-env.d.ts'
        ? [full]
        : [];
  });
}

/** A hash of the sources in some folders, or of single files, of library versions, and of how they are bundled. */
export function hashOf(places) {
  const hash = createHash('sha256');
  for (const file of [...places.flatMap(sources), path.join(ROOT, 'package-lock.json'), import.meta.filename].sort())
    hash.update(path.relative(ROOT, file)).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
}

/** Libraries of hundreds of small files, which take a second to read one by one, are bundled too. */
const WITHIN = /^(mathjs|zod|culori)(\/|$)/;
const LIBRARIES = `${path.sep}node_modules${path.sep}`;

/**
 * Bundles programs, each into one file. Most libraries stay external.
 *
 * @param entryPoints names and entry files, relative to the project
 * @returns 0, or 1 and why not
 */
export async function bundle(entryPoints, outdir) {
  const { build } = await import('esbuild');
  return build({
    absWorkingDir: ROOT,
    entryPoints,
    outdir,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'silent',
    plugins: [
      {
        name: 'libraries',
        setup: ({ onResolve }) =>
          void onResolve({ filter: /^[^./]/ }, ({ path: name, kind, importer }) =>
            kind === 'entry-point' || /^@(maypole)?\//.test(name) || WITHIN.test(name) || importer.includes(LIBRARIES)
              ? undefined
              : { external: true },
          ),
      },
    ],
  }).then(
    () => ({ status: 0, output: '' }),
    (error) => ({ status: 1, output: error.message }),
  );
}
