import { PIECE_VERSION } from '../piece/piece';
import { BITS } from './bits';

/** Raised when passes or denoising change while the traced samples stay the same. */
const POST_REVISION = 6;

/**
 * Version of the renderer: equal versions make frames that are equal in every bit. A worker of another version may not
 * take part in a render.
 */
export const RENDERER_VERSION = `${PIECE_VERSION}-${BITS.picture.slice(0, 6)}${BITS.piece.slice(0, 6)}-${POST_REVISION}`;
