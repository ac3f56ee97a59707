/** Writes NOTICES.md, what others have made that Maypole is made with, from the lock file: `npm run notices`. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { noticesOf, packagesOf } from './notices-of';

const root = path.join(import.meta.dirname, '..');
writeFileSync(path.join(root, 'NOTICES.md'), noticesOf(packagesOf(root), root));
