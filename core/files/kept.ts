import type { Asset } from '../steps/step';
import { readPgm } from './pgm';
import { readPly } from './ply';

/** A kept file is a PLY shape or a PGM picture, told apart by their first letters. */
export function readAsset(bytes: Uint8Array): Asset {
  return bytes[0] === 0x50 && bytes[1] === 0x35
    ? { type: 'picture', picture: readPgm(bytes) }
    : { type: 'shape', mesh: readPly(bytes) };
}
