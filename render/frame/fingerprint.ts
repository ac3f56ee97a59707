import { createHash } from 'node:crypto';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { Piece } from '@maypole/core/piece/piece';
import { MAKER } from '@maypole/core/trace/maker';

/** Tells the pictures of frames: what has the same is the same picture, and is not made twice. */
export function frameFingerprints(piece: Piece, frames: readonly number[], order: FrameOrder): string[] {
  const { loop, format, scene, ribbons } = piece;
  const all = createHash('sha256')
    .update(JSON.stringify([MAKER, { loop, format, scene, ribbons }, order]))
    .digest('hex');
  return frames.map((frame) => createHash('sha256').update(`${all}/${frame}`).digest('hex'));
}
