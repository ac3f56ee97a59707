/** Writes docs/reference.md from the declarations. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { describeAll } from '@maypole/core/declare/describe';

writeFileSync(path.join(import.meta.dirname, '../docs/reference.md'), describeAll());
