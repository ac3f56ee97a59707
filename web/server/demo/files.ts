import { readdirSync } from 'node:fs';
import path from 'node:path';
import { sha256 } from '@maypole/render/frame/keep';

/** The documents of the demo pieces in a folder, in the order in which they stand on the shelf. */
export function demoFiles(folder: string): string[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith('.maypole.json'))
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/** Where their pictures are; of programs that are run from the project's folder, wherever they are built. */
export const STRIPS = path.resolve('web/server/demo/strips');

/** Where the strip of pictures of a demo piece is. */
export function demoStrip(file: string): string {
  return path.join(STRIPS, file.replace(/\.maypole\.json$/, '.webp'));
}

/** What tells whether a strip is still that of its document; the same document of a newer version is. */
export function demoMark(source: string): string {
  return sha256(Buffer.from(source.replace(/^(\{\n {2}"maypole": "piece",\n {2}"version": )\d+/, '$1any')));
}
