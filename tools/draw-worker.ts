/** Traces the tiles it is given of one picture. */
import { parentPort, workerData } from 'node:worker_threads';
import type { Asset } from '@maypole/core/files/asset';
import { provideAsset } from '@maypole/core/files/store';
import { Exposure } from '@maypole/core/trace/exposure';
import type { Tile, Worked } from '@maypole/core/trace/tracer';
import type { DrawWork } from './draw';

export interface DrawnTile {
  readonly tile: Tile;
  readonly part: Worked;
}

const { pictures, settings, files, samples } = workerData as DrawWork & {
  readonly files: readonly (readonly [string, Asset])[];
  readonly samples: number;
};
for (const [name, asset] of files) provideAsset(name, asset);
const exposure = new Exposure(pictures, settings);
parentPort!.on('message', (tile: Tile) => {
  const part = exposure.traced(tile, samples);
  const drawn: DrawnTile = { tile, part };
  const buffers = [part.sums, part.features, ...(part.passes ? [part.passes] : [])];
  parentPort!.postMessage(
    drawn,
    buffers.map((b) => b.buffer as ArrayBuffer),
  );
});
parentPort!.postMessage('ready');
