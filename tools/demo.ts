/** Brings the demo pieces to the current version: `npm run demo`. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readPiece, writePiece } from '@maypole/core/piece/read';

const folder = path.join(import.meta.dirname, '../demo');
for (const file of readdirSync(folder).filter((f) => f.endsWith('.json'))) {
  const read = readPiece(readFileSync(path.join(folder, file), 'utf8'));
  if (!read.ok) throw new Error(`${file}: ${read.message}`);
  writeFileSync(path.join(folder, file), writePiece(read.piece));
}
