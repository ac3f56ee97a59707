import { evaluateFinish, evaluateScene } from '@maypole/core/evaluate/scene';
import type { Piece } from '@maypole/core/piece/piece';
import type { ViewFrame, ViewMode } from '@/view/frame';
import type { Engine } from './engine';

/** The picture of a piece at an unwrapped frame, from shapes the engine has ready. */
export function composeFrame(engine: Engine, piece: Piece, frame: number, mode: ViewMode): ViewFrame {
  return {
    ribbons: piece.ribbons.flatMap((r) => {
      const shape = r.on ? engine.geometry(r, frame) : undefined;
      return shape ? [{ id: r.id, shape, finish: evaluateFinish(piece, r.finish, frame) }] : [];
    }),
    scene: evaluateScene(piece, frame),
    mode,
    outputAspect: piece.output.width / piece.output.height,
  };
}
