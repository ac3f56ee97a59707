import { from1to2 } from './versions/1-to-2';
import { from2to3 } from './versions/2-to-3';
import { from3to4 } from './versions/3-to-4';
import { from4to5 } from './versions/4-to-5';
import { from5to6 } from './versions/5-to-6';
import { from6to7 } from './versions/6-to-7';
import { from7to8 } from './versions/7-to-8';
import { from8to9 } from './versions/8-to-9';
import { from9to10 } from './versions/9-to-10';

/**
 * migrations[v] turns a document of version v into one of version v + 1. Each is pure, independent of the declarations,
 * and never changed after release.
 */
export const migrations: Readonly<Record<number, (document: unknown) => unknown>> = {
  1: from1to2,
  2: from2to3,
  3: from3to4,
  4: from4to5,
  5: from5to6,
  6: from6to7,
  7: from7to8,
  8: from8to9,
  9: from9to10,
};
