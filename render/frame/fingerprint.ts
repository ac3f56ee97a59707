import { createHash } from 'node:crypto';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { Piece } from '@maypole/core/piece/piece';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';

/** Keys of frames: frames with equal keys have equal pictures and are made once. */
export function frameFingerprints(piece: Piece, frames: readonly number[], order: FrameOrder): string[] {
  const { loop, format, scene, ribbons } = piece;
  const all = createHash('sha256')
    .update(JSON.stringify([RENDERER_VERSION, { loop, format, scene, ribbons }, order]))
    .digest('hex');
  return frames.map((frame) => createHash('sha256').update(`${all}/${frame}`).digest('hex'));
}
