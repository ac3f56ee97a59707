import { PIECE_VERSION } from '../piece/piece';
import { BITS } from './bits';

/** Raised when results change that the reference pictures do not show: passes, denoising, rarer paths. */
const REVISION = 8;

/**
 * Version of the renderer: equal versions make frames that are equal in every bit. A worker of another version may not
 * take part in a render.
 */
export const RENDERER_VERSION = `${PIECE_VERSION}-${BITS.picture.slice(0, 6)}${BITS.piece.slice(0, 6)}-${REVISION}`;
