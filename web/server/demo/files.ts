import { readdirSync } from 'node:fs';
import path from 'node:path';
import { sha256 } from '@maypole/render/frame/keep';

/** Documents of the demo pieces in a folder, in the order of the shelf. */
export function demoFiles(folder: string): string[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith('.maypole.json'))
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/** Folder of their pictures, relative to the project's folder. */
export const STRIPS = path.resolve('web/server/demo/strips');

/** Path of a demo piece's strip of pictures. */
export function demoStrip(file: string): string {
  return path.join(STRIPS, file.replace(/\.maypole\.json$/, '.webp'));
}

/** Fingerprint of what a strip shows of a document: its loop, picture size, scene and ribbons, and not how it is delivered. */
export function demoMark(source: string): string {
  const { loop, format, scene, ribbons } = JSON.parse(source) as Record<string, unknown>;
  return sha256(Buffer.from(JSON.stringify({ loop, format, scene, ribbons })));
}
