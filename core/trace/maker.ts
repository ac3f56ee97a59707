import { PIECE_VERSION } from '../piece/piece';
import { BITS } from './bits';

/** Raised where passes are told, or grain is taken out, in another way, while what is traced stays the same. */
const AFTERWARDS = 6;

/**
 * What makes frames here: they are the same in every bit wherever it is the same. Whoever has another may not work on a
 * render of this one.
 */
export const MAKER = `${PIECE_VERSION}-${BITS.picture.slice(0, 6)}${BITS.piece.slice(0, 6)}-${AFTERWARDS}`;
