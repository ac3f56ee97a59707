import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';
import { stepKinds } from '../steps/index';
import { describeAll } from './describe';

it('the reference page is the one the declarations give; npm run docs writes it anew', () => {
  const page = readFileSync(path.join(import.meta.dirname, '../../docs/reference.md'), 'utf8');
  expect(page).toBe(describeAll());
  for (const kind of stepKinds) expect(page).toContain(`### ${kind.title} (\`${kind.kind}\`)`);
});
