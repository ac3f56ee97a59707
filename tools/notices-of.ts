import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/** A package of the lock file that ships with the application. */
export interface Package {
  readonly name: string;
  readonly version: string;
  /** SPDX expression. */
  readonly license: string;
  /** Where it is installed, below the project. */
  readonly folder: string;
}

interface Locked {
  readonly version?: string;
  readonly license?: string;
  readonly dev?: boolean;
  /** For development, and optional for another package. */
  readonly devOptional?: boolean;
  readonly link?: boolean;
}

/** Packages that are not for development only, by name and version. */
export function packagesOf(root: string): readonly Package[] {
  const { packages } = JSON.parse(readFileSync(path.join(root, 'package-lock.json'), 'utf8')) as {
    packages: Record<string, Locked>;
  };
  return Object.entries(packages)
    .filter(([folder, p]) => folder.includes('node_modules/') && !p.dev && !p.devOptional && !p.link)
    .map(([folder, p]) => ({
      name: folder.slice(folder.lastIndexOf('node_modules/') + 'node_modules/'.length),
      version: p.version ?? '',
      license: p.license ?? 'not named',
      folder,
    }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'));
}

/** The text of a package's licence; null if it brings none, or is for another platform and not installed. */
function textOf({ folder }: Package, root: string): string | null {
  const full = path.join(root, folder);
  if (!existsSync(full)) return null;
  const file = readdirSync(full).find((f) => /^(licen[cs]e|copying)(\.(md|txt|mit))?$/i.test(f));
  return file ? readFileSync(path.join(full, file), 'utf8').replaceAll('\r\n', '\n').trim() : null;
}

/** All notices as one text: authors, then each licence once with the packages under it. */
export function noticesOf(packages: readonly Package[], root: string): string {
  const byText = new Map<string, Package[]>();
  for (const p of packages) {
    const text = textOf(p, root);
    if (text) byText.set(text, [...(byText.get(text) ?? []), p]);
  }
  const named = (p: Package) => `${p.name} ${p.version}`;
  const list = [...new Map(packages.map((p) => [`- ${named(p)}: ${p.license}`, p])).keys()];
  const texts = [...byText].map(
    ([text, of]) =>
      `## ${[...new Set(of.map(named))].join(', ')}\n\n${text.replace(/^/gm, '    ').replace(/ +$/gm, '')}\n`,
  );
  return [
    '# What Maypole is made with',
    '',
    'Made by `npm run notices` from the lock file. Packages for other machines, which are not installed ' +
      'here, are in the list with the name of their licence alone.',
    '',
    ...list,
    '',
    ...texts,
  ].join('\n');
}
