import type { Piece } from '@maypole/core/piece/piece';
import { canvas2d } from '@/view/stage/canvas-2d';
import { drawsInSoftware } from '@/view/stage/software';
import { Kept } from './kept';
import { Offscreen } from './offscreen';

/** Width and height of a still in pixels. */
export const STILL = 96;

const drawers = new Kept(() => Offscreen.create(STILL, STILL, false), 5000);
const made = new WeakMap<Piece, HTMLCanvasElement>();

/**
 * First picture of a piece, square and small, made once; null if it is too expensive or no longer wanted. One is drawn
 * at a time.
 */
export function drawStill(piece: Piece, wanted: () => boolean): Promise<HTMLCanvasElement | null> {
  const known = made.get(piece);
  if (known) return Promise.resolve(known);
  return drawers.use(async (offscreen) => {
    if (!wanted()) return null;
    const plain = drawsInSoftware(document.createElement('canvas'));
    offscreen.setPiece({ ...piece, format: { width: 1, height: 1 } }, 'draft', 'shaded', false, plain);
    if (await offscreen.waits(0)) return null;
    await offscreen.draw(0, plain ? 1 : 4);
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = STILL;
    canvas2d(canvas)!.drawImage(offscreen.canvas, 0, 0);
    made.set(piece, canvas);
    return canvas;
  });
}
