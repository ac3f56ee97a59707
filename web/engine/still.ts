import type { Piece } from '@maypole/core/piece/piece';
import { canvas2d } from '@/view/canvas-2d';
import { drawsInSoftware } from '@/view/software';
import { Offscreen } from './offscreen';

/** Side of a still in pixels. */
export const STILL = 96;
/** Milliseconds after which workers and the graphics context are given back. */
const IDLE = 5000;

let shared: Promise<Offscreen> | null = null;
let queue: Promise<unknown> = Promise.resolve();
let idle: ReturnType<typeof setTimeout> | undefined;
const made = new WeakMap<Piece, HTMLCanvasElement>();

/**
 * The first picture of a piece, square and small, made once; null where it takes too much work or nobody waits for it
 * any more. One is drawn at a time.
 */
export function drawStill(piece: Piece, wanted: () => boolean): Promise<HTMLCanvasElement | null> {
  const known = made.get(piece);
  if (known) return Promise.resolve(known);
  const mine = queue.then(async () => {
    if (!wanted()) return null;
    clearTimeout(idle);
    const plain = drawsInSoftware(document.createElement('canvas'));
    const offscreen = await (shared ??= Offscreen.create(STILL, STILL, false));
    offscreen.setPiece({ ...piece, format: { width: 1, height: 1 } }, 'draft', 'shaded', false, plain);
    if (await offscreen.waits(0)) return null;
    await offscreen.draw(0, plain ? 1 : 4);
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = STILL;
    canvas2d(canvas)!.drawImage(offscreen.canvas, 0, 0);
    made.set(piece, canvas);
    return canvas;
  });
  queue = mine
    .catch(() => undefined)
    .then(() => {
      clearTimeout(idle);
      idle = setTimeout(() => {
        void shared?.then((o) => o.dispose()).catch(() => undefined);
        shared = null;
      }, IDLE);
    });
  return mine;
}
