import { canvas2d } from '@/view/stage/canvas-2d';
import type { Piece } from '@maypole/core/piece/piece';
import { Kept } from './kept';
import { Offscreen } from './offscreen';
import { STRIP, stripFormat } from './strip';

const drawers = new Kept(() => Offscreen.create(STRIP.width, STRIP.height, false), 5000);
/** A picture that takes longer than this, in milliseconds, is drawn in software. */
const SLOW_MS = 20;

/** A piece too expensive for the shelf to draw unasked. */
export class TooMuch extends Error {
  override readonly name = 'TooMuch';
  constructor() {
    super('This piece takes too much work to be drawn by the way.');
  }
}

/** Draws the strip of a piece from its real evaluation; one piece at a time. Resolves with a WebP. */
export function drawStrip(piece: Piece): Promise<Blob> {
  return drawers.use(async (offscreen) => {
    offscreen.setPiece({ ...piece, format: stripFormat(piece.format) }, 'draft');
    if (await offscreen.waits(0)) throw new TooMuch();
    const strip = document.createElement('canvas');
    strip.width = STRIP.width * STRIP.frames;
    strip.height = STRIP.height;
    const context = canvas2d(strip)!;
    // In software, edges may be a little rougher rather than the shelf a minute late.
    await offscreen.draw(0, 1);
    const start = performance.now();
    await offscreen.draw(0, 1);
    const subframes = performance.now() - start < SLOW_MS ? 8 : 2;
    for (let i = 0; i < STRIP.frames; i++) {
      await offscreen.draw(Math.floor((i * piece.loop.frames) / STRIP.frames), subframes);
      context.drawImage(offscreen.canvas, i * STRIP.width, 0);
    }
    const blob = await new Promise<Blob | null>((resolve) => strip.toBlob(resolve, 'image/webp', 0.86));
    if (!blob) throw new Error('The thumbnail could not be encoded.');
    return blob;
  });
}
