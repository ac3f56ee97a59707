import { pictureAt } from '@maypole/core/evaluate/picture-at';
import type { Piece } from '@maypole/core/piece/piece';
import type { ViewFrame, ViewMode } from '@/view/frame';
import type { Engine } from './engine';

/** The picture of a piece at an unwrapped frame, from shapes the engine has ready. */
export function composeFrame(engine: Engine, piece: Piece, frame: number, mode: ViewMode): ViewFrame {
  return { ...pictureAt(piece, frame, (_, i) => engine.geometry(piece.ribbons[i], frame)), mode };
}
