import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import path from 'node:path';

/** The documents of the demo pieces in a folder, in the order in which they stand on the shelf. */
export function demoFiles(folder: string): string[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith('.maypole.json'))
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/** Where the strip of pictures of a demo piece is. */
export function demoStrip(folder: string, file: string): string {
  return path.join(folder, 'strips', file.replace(/\.maypole\.json$/, '.webp'));
}

/** What tells whether a strip is still that of its document. */
export function demoMark(source: string): string {
  return createHash('sha256').update(source).digest('hex');
}
