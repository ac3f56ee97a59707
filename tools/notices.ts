/** Writes NOTICES.md, the licences of third-party works, from the lock file: `npm run notices`. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { noticesOf, packagesOf } from './notices-of';

const root = path.join(import.meta.dirname, '..');
writeFileSync(path.join(root, 'NOTICES.md'), noticesOf(packagesOf(root), root));
