/// <reference lib="webworker" />
import { developed } from '@maypole/core/develop/develop';
import { Denoiser, emptyGuides, putGuides, type Guides } from '@maypole/core/develop/denoise';
import { emptyLight, fillFrom, putTile, type LightPicture } from '@maypole/core/develop/light';
import { sampleColour } from '@maypole/core/develop/sample-map';
import { coarseSize } from '@maypole/core/trace/coarse';
import { COUNT, SUMS } from '@maypole/core/trace/worked';
import { pictureFiles } from '../view/picture-files';
import { scope } from '../view/worker-scope';
import { bitmapOf } from './bitmap';
import type { Develop, FromDarkroom, ToDarkroom } from './darkroom-protocol';

/** Milliseconds between a part that comes and its being shown: others may come with it. */
const SOON = 60;

interface Sheet {
  readonly begun: Extract<ToDarkroom, { type: 'begin' }>;
  readonly light: LightPicture;
  readonly guides: Guides;
  /** Samples of each pixel. */
  readonly counts: Float32Array;
  /** The picture of pixels that are traced first, and how many of its rows are still to come. */
  readonly coarse: LightPicture;
  rowsLeft: number;
  /** Parts that have come. */
  parts: number;
}

let sheet: Sheet | null = null;
let how: Develop = { denoise: false, shows: 'picture' };
let denoiser: Denoiser | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
/** How long it took last; it is not done more than half of the time. */
let took = 0;

const tell = (message: FromDarkroom, transfer: Transferable[] = []) => scope.postMessage(message, transfer);

scope.onmessage = ({ data }: MessageEvent<ToDarkroom>) => {
  if (data.type === 'begin') {
    const { width, height } = data;
    clearTimeout(timer);
    timer = undefined;
    how = data.how;
    const counts = new Float32Array(width * height);
    const coarse = coarseSize(width, height);
    sheet = {
      begun: data,
      light: emptyLight(width, height),
      guides: emptyGuides(width, height, data.scene.camera.exposure),
      counts,
      coarse: emptyLight(coarse.width, coarse.height),
      rowsLeft: coarse.height,
      parts: 0,
    };
    void pictureFiles(data);
  } else if (data.type === 'how') {
    how = data.how;
    if (!sheet) return;
    // At once: one that is to be shown later is of what was asked for before.
    clearTimeout(timer);
    timer = setTimeout(show);
  } else if (sheet?.begun.id !== data.id) {
    return;
  } else if (data.type === 'coarse') {
    const { light, coarse, counts } = sheet;
    putTile(coarse, { x: 0, y: data.row, width: coarse.width, height: 1 }, data.sums);
    if (--sheet.rowsLeft > 0) return;
    fillFrom(coarse, light, (pixel) => counts[pixel] > 0);
    // Parts that came before had nothing to lie on.
    if (sheet.parts > 0) timer ??= setTimeout(show, Math.max(SOON, took));
  } else {
    const { tile, part } = data;
    sheet.parts++;
    putTile(sheet.light, tile, part.sums);
    putGuides(sheet.guides, tile, part);
    for (let y = 0; y < tile.height; y++)
      for (let x = 0; x < tile.width; x++)
        sheet.counts[(tile.y + y) * sheet.light.width + tile.x + x] = part.sums[SUMS * (y * tile.width + x) + COUNT];
    // Without a picture of all there would be holes in it.
    if (sheet.rowsLeft === 0) timer ??= setTimeout(show, Math.max(SOON, took));
  }
};

/** Develops what there is and shows it. */
function show(): void {
  timer = undefined;
  if (!sheet) return;
  const { begun, light, guides, counts, parts } = sheet;
  const start = performance.now();
  try {
    let pixels: Uint8ClampedArray<ArrayBuffer>;
    if (how.shows === 'samples') {
      pixels = new Uint8ClampedArray(4 * counts.length);
      counts.forEach((n, i) => pixels.set(sampleColour(n, begun.samples), 4 * i));
    } else {
      const clean = how.denoise ? (denoiser ??= new Denoiser()).denoised(light, guides) : light;
      pixels = developed(clean, begun);
    }
    const picture = bitmapOf(pixels, begun.width, begun.height);
    tell({ type: 'picture', id: begun.id, picture, how, parts }, [picture]);
  } catch (error) {
    tell({ type: 'failed', id: begun.id, message: error instanceof Error ? error.message : String(error) });
  }
  took = performance.now() - start;
}
