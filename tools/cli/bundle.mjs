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

/** A fingerprint of the sources in some folders, or of single files, of the versions of libraries, and of how all is put together. */
export function hashOf(places) {
  const hash = createHash('sha256');
  for (const file of [...places.flatMap(sources), path.join(ROOT, 'package-lock.json'), import.meta.filename].sort())
    hash.update(path.relative(ROOT, file)).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
}

/** Libraries of hundreds of small files, which take a second to be read one by one. */
const WITHIN = /^(mathjs|zod|culori)(\/|$)/;
const LIBRARIES = `${path.sep}node_modules${path.sep}`;

/**
 * Puts programs together, each one file of ours. Most libraries stay where they are.
 *
 * @param entryPoints names, and the source each begins with, from the root of the project
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
