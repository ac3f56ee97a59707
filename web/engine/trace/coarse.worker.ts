/// <reference lib="webworker" />
import { developed } from '@maypole/core/develop/develop';
import { emptyLight, fillFrom, putTile, type LightPicture } from '@maypole/core/develop/light';
import { coarseSize } from '@maypole/core/trace/paths/coarse';
import { pictureFiles } from '../../view/stage/picture-files';
import { scope } from '../../view/stage/worker-scope';
import { bitmapOf } from '../draw/bitmap';
import type { FromDeveloper, ToDeveloper } from './develop-protocol';

/**
 * Develops the first, coarse pixels and nothing else: they do not wait for the previous picture, which the other worker
 * may still be developing.
 */

/** Width and height of a pixel of that picture. */
const PIXEL = 4;

interface Canvas {
  readonly begun: Extract<ToDeveloper, { type: 'begin' }>;
  readonly light: LightPicture;
  rowsLeft: number;
}

let sheet: Canvas | null = null;

scope.onmessage = ({ data }: MessageEvent<ToDeveloper>) => {
  if (data.type === 'begin') {
    const { width, height } = coarseSize(data.width, data.height);
    sheet = { begun: data, light: emptyLight(width, height), rowsLeft: height };
    void pictureFiles(data);
  } else if (data.type === 'coarse' && sheet?.begun.id === data.id) {
    const { begun, light } = sheet;
    putTile(light, { x: 0, y: data.row, width: light.width, height: 1 }, data.sums);
    if (--sheet.rowsLeft > 0 || begun.how.shows !== 'picture') return;
    // It has no more detail than that, and is done several times sooner.
    const first = emptyLight(Math.ceil(begun.width / PIXEL), Math.ceil(begun.height / PIXEL));
    fillFrom(light, first, () => false);
    // A few samples say nothing about their noise.
    const picture = bitmapOf(developed(first, begun), first.width, first.height);
    scope.postMessage({ type: 'picture', id: begun.id, picture, how: begun.how, parts: 0 } satisfies FromDeveloper, [
      picture,
    ]);
  }
};
