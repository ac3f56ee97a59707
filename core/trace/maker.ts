import { PIECE_VERSION } from '../piece/piece';
import { BITS } from './bits';

/** Raised where other passes are told, or in another way, while the picture stays the same. */
const PASSES = 2;

/**
 * What makes frames here: they are the same in every bit wherever it is the same. Whoever has another may not work on a
 * render of this one.
 */
export const MAKER = `${PIECE_VERSION}-${BITS.picture.slice(0, 6)}${BITS.piece.slice(0, 6)}-${PASSES}`;
