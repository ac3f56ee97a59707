/**
 * Writes docs/reference.md from the declarations, and the vocabulary of a new document version. The vocabulary of an
 * existing version stays: new declarations belong to the next.
 */
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { PIECE_VERSION } from '@maypole/core/piece/piece';
import { describeAll } from '@maypole/core/reference/describe';
import { inventory } from '@maypole/core/reference/inventory';

const root = path.join(import.meta.dirname, '..');
writeFileSync(path.join(root, 'docs/reference.md'), describeAll());

const kept = path.join(root, `core/fixtures/version-${PIECE_VERSION}/declared.txt`);
if (!existsSync(kept)) {
  mkdirSync(path.dirname(kept), { recursive: true });
  writeFileSync(kept, `${inventory().join('\n')}\n`);
}
