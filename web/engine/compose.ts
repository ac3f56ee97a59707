import { evaluateFinish, evaluateScene } from '@maypole/core/evaluate/scene';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece } from '@maypole/core/piece/piece';
import type { ViewFrame, ViewMode } from '@/view/frame';
import type { Engine } from './engine';

/** The picture of a piece at an unwrapped frame, from shapes the engine has ready. */
export function composeFrame(engine: Engine, piece: Piece, frame: number, mode: ViewMode): ViewFrame {
  const linked = linkPiece(piece);
  return {
    ribbons: piece.ribbons.flatMap((r, i) => {
      const shape = r.on ? engine.geometry(r, frame) : undefined;
      return shape ? [{ id: r.id, shape, finish: evaluateFinish(linked, linked.ribbons[i].finish, frame) }] : [];
    }),
    scene: evaluateScene(linked, frame),
    mode,
    outputAspect: piece.output.width / piece.output.height,
  };
}
