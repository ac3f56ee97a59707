/// <reference lib="webworker" />
import { developed } from '@maypole/core/develop/develop';
import { Denoiser, emptyFeatures, putFeatures, type DenoiserFeatures } from '@maypole/core/develop/denoise';
import { emptyLight, fillFrom, putTile, type LightPicture } from '@maypole/core/develop/light';
import { sampleColour } from '@maypole/core/develop/sample-map';
import { coarseSize } from '@maypole/core/trace/paths/coarse';
import { COUNT, SUMS } from '@maypole/core/trace/paths/tile-result';
import { pictureFiles } from '../../view/stage/picture-files';
import { scope } from '../../view/stage/worker-scope';
import { bitmapOf } from '../draw/bitmap';
import type { Develop, FromDeveloper, ToDeveloper } from './develop-protocol';

/** Milliseconds between the arrival of a part and showing it: others may arrive meanwhile. */
const SOON = 60;

interface Canvas {
  readonly begun: Extract<ToDeveloper, { type: 'begin' }>;
  readonly light: LightPicture;
  readonly guides: DenoiserFeatures;
  /** Samples of each pixel. */
  readonly counts: Float32Array;
  /** The coarse picture, and how many of its rows are still to come. */
  readonly coarse: LightPicture;
  rowsLeft: number;
  /** Parts received. */
  parts: number;
}

let sheet: Canvas | null = null;
let how: Develop = { denoise: false, shows: 'picture' };
let denoiser: Denoiser | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
/** Duration of the last development; it takes at most half of the time. */
let took = 0;

const tell = (message: FromDeveloper, transfer: Transferable[] = []) => scope.postMessage(message, transfer);

scope.onmessage = ({ data }: MessageEvent<ToDeveloper>) => {
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
      guides: emptyFeatures(width, height, data.scene.camera.exposure),
      counts,
      coarse: emptyLight(coarse.width, coarse.height),
      rowsLeft: coarse.height,
      parts: 0,
    };
    void pictureFiles(data);
  } else if (data.type === 'how') {
    how = data.how;
    if (!sheet) return;
    // At once: a pending one is of an earlier request.
    clearTimeout(timer);
    timer = setTimeout(show);
  } else if (sheet?.begun.id !== data.id) {
    return;
  } else if (data.type === 'coarse') {
    const { light, coarse, counts } = sheet;
    putTile(coarse, { x: 0, y: data.row, width: coarse.width, height: 1 }, data.sums);
    if (--sheet.rowsLeft > 0) return;
    fillFrom(coarse, light, (pixel) => counts[pixel] > 0);
    // Earlier parts had nothing to lie on.
    if (sheet.parts > 0) timer ??= setTimeout(show, Math.max(SOON, took));
  } else {
    const { tile, part } = data;
    sheet.parts++;
    putTile(sheet.light, tile, part.sums);
    putFeatures(sheet.guides, tile, part);
    for (let y = 0; y < tile.height; y++)
      for (let x = 0; x < tile.width; x++)
        sheet.counts[(tile.y + y) * sheet.light.width + tile.x + x] = part.sums[SUMS * (y * tile.width + x) + COUNT];
    // Before the coarse picture is complete there would be holes.
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
