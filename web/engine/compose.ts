import { pictureAt } from '@maypole/core/evaluate/picture-at';
import type { Piece } from '@maypole/core/piece/piece';
import type { ViewFrame, ViewMode } from '@/view/frame';
import { instantsOf } from '@maypole/core/scene/shutter';
import type { Engine } from './engine';

/** The picture of a piece at an unwrapped frame, from shapes the engine has ready. */
export function composeFrame(engine: Engine, piece: Piece, frame: number, mode: ViewMode): ViewFrame {
  return { ...pictureAt(piece, frame, (_, i) => engine.geometry(piece.ribbons[i], frame)), mode };
}

/**
 * The pictures that a frame is the average of where it is blurred by movement, in the order in which
 * they are drawn; one where it is not. Resolves once all their shapes are there.
 *
 * @param goOn asked before each of them; false ends the work, with what was there
 */
export async function composeInstants(
  engine: Engine,
  piece: Piece,
  frame: number,
  mode: ViewMode,
  subframes: number,
  goOn: () => boolean = () => true,
): Promise<ViewFrame[]> {
  const now = composeFrame(engine, piece, frame, mode);
  const instants = instantsOf(now.scene.camera.shutter, subframes);
  if (instants.length === 1) return [now];
  const frames: ViewFrame[] = [];
  for (const offset of instants) {
    if (!goOn()) return [now];
    await engine.whenThere(frame + offset);
    const then = composeFrame(engine, piece, frame + offset, mode);
    // What is done to the finished picture is that of the frame itself.
    frames.push({ ...then, scene: { ...then.scene, picture: now.scene.picture, backdrop: now.scene.backdrop } });
  }
  return frames;
}
