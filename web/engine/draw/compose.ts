import { pictureAt } from '@maypole/core/evaluate/picture-at';
import type { Piece } from '@maypole/core/piece/piece';
import type { ViewFrame, ViewMode } from '@/view/stage/frame';
import { instantsOf } from '@maypole/core/scene/shutter';
import type { Engine } from '../engine';

/** The picture of a piece at an unwrapped frame, from shapes the engine has ready. */
export function composeFrame(engine: Engine, piece: Piece, frame: number, mode: ViewMode): ViewFrame {
  return { ...pictureAt(piece, frame, (_, i) => engine.geometry(piece.ribbons[i], frame)), mode };
}

/**
 * The instants that a motion-blurred frame averages, in drawing order; a single one without blur. Resolves once all
 * their shapes are there.
 *
 * @param goOn asked before each; false ends the work with what is there
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
    // Picture effects are those of the frame itself.
    frames.push({ ...then, scene: { ...then.scene, picture: now.scene.picture, backdrop: now.scene.backdrop } });
  }
  return frames;
}
