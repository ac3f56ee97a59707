/// <reference lib="webworker" />
import { developed } from '@maypole/core/develop/develop';
import { emptyLight, fillFrom, putTile, type LightPicture } from '@maypole/core/develop/light';
import { coarseSize } from '@maypole/core/trace/coarse';
import { pictureFiles } from '../view/picture-files';
import { scope } from '../view/worker-scope';
import { bitmapOf } from './bitmap';
import type { FromDarkroom, ToDarkroom } from './darkroom-protocol';

/**
 * Develops the pixels that are traced first, and nothing else: the picture before, which the darkroom may be at still, does
 * not hold them up.
 */

/** Pixels of that picture are so large, each way. */
const PIXEL = 4;

interface Sheet {
  readonly begun: Extract<ToDarkroom, { type: 'begin' }>;
  readonly light: LightPicture;
  rowsLeft: number;
}

let sheet: Sheet | null = null;

scope.onmessage = ({ data }: MessageEvent<ToDarkroom>) => {
  if (data.type === 'begin') {
    const { width, height } = coarseSize(data.width, data.height);
    sheet = { begun: data, light: emptyLight(width, height), rowsLeft: height };
    void pictureFiles(data);
  } else if (data.type === 'coarse' && sheet?.begun.id === data.id) {
    const { begun, light } = sheet;
    putTile(light, { x: 0, y: data.row, width: light.width, height: 1 }, data.sums);
    if (--sheet.rowsLeft > 0 || begun.how.shows !== 'picture') return;
    // It has no more detail than that, and is there several times as soon.
    const first = emptyLight(Math.ceil(begun.width / PIXEL), Math.ceil(begun.height / PIXEL));
    fillFrom(light, first, () => false);
    // Of so few samples there is nothing that grain could be told by.
    const picture = bitmapOf(developed(first, begun), first.width, first.height);
    scope.postMessage({ type: 'picture', id: begun.id, picture, how: begun.how, parts: 0 } satisfies FromDarkroom, [
      picture,
    ]);
  }
};
