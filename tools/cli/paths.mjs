import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '../..');
export const DATA = path.resolve(process.env.MAYPOLE_DATA ?? path.join(ROOT, '.maypole'));
export const LOGS = path.join(DATA, 'logs');
export const WEB = path.join(ROOT, 'web');
export const BIN = path.join(ROOT, 'node_modules/.bin');
/** Programs that are built beside the pages. */
export const PROGRAMS = {
  front: path.join(WEB, '.next/maypole/front.mjs'),
  jobs: path.join(WEB, '.next/maypole/jobs.mjs'),
  work: path.join(WEB, '.next/maypole/work.mjs'),
  prepare: path.join(WEB, '.next/maypole/prepare.mjs'),
  ownerLink: path.join(WEB, '.next/maypole/owner-link.mjs'),
};
