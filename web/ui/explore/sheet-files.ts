import type { Piece } from '@maypole/core/piece/piece';
import { loopSeconds } from '@maypole/core/time/loop';
import type { Strip } from '@/engine/draw/contact-sheet';
import { canvas2d } from '@/view/stage/canvas-2d';
import { movieOf } from '../api';
import { gridOf } from './sheet-work';

/** Pixels between tiles, and around them. */
const GAP = 8;
const PAPER = '#F1EDE4';

/** Layout of a sheet's tiles in one picture with even sides, as movies require. */
export function layoutOf(count: number, { width, height }: Pick<Strip, 'width' | 'height'>) {
  const [across] = gridOf(count);
  const down = Math.ceil(count / across);
  const even = (x: number) => 2 * Math.ceil(x / 2);
  return {
    width: even(across * (width + GAP) + GAP),
    height: even(down * (height + GAP) + GAP),
    at: (i: number): readonly [number, number] => [
      GAP + (i % across) * (width + GAP),
      GAP + Math.floor(i / across) * (height + GAP),
    ],
  };
}

/** Pictures of all tiles, one moment of their loops below the other. */
function filmOf(strips: readonly Strip[], pictures: number): HTMLCanvasElement {
  const [{ width, height }] = strips;
  const layout = layoutOf(strips.length, strips[0]);
  const canvas = document.createElement('canvas');
  canvas.width = layout.width;
  canvas.height = layout.height * pictures;
  const context = canvas2d(canvas)!;
  context.fillStyle = PAPER;
  context.fillRect(0, 0, canvas.width, canvas.height);
  for (let k = 0; k < pictures; k++)
    strips.forEach((strip, i) => {
      const [x, y] = layout.at(i);
      context.drawImage(strip.canvas, k * width, 0, width, height, x, k * layout.height + y, width, height);
    });
  return canvas;
}

const asPng = (canvas: HTMLCanvasElement) =>
  new Promise<Blob>((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('This sheet is too large for a picture here.'))),
      'image/png',
    ),
  );

function give(blob: Blob, name: string, ending: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-sheet.${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Downloads the sheet as a PNG: the first pictures of all tiles. */
export async function savePicture(strips: readonly Strip[], name: string): Promise<void> {
  give(await asPng(filmOf(strips, 1)), name, 'png');
}

/** Downloads the sheet as an MP4 of one loop. All pictures of all tiles must be there. */
export async function saveMovie(strips: readonly Strip[], { name, loop }: Pick<Piece, 'name' | 'loop'>): Promise<void> {
  const pictures = Math.min(...strips.map((s) => s.frames));
  give(await movieOf(await asPng(filmOf(strips, pictures)), pictures, pictures / loopSeconds(loop)), name, 'mp4');
}
