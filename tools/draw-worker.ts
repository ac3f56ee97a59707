/** Traces the tiles it is given of one picture. */
import { parentPort, workerData } from 'node:worker_threads';
import { Tracer, type Tile, type TraceSettings } from '@maypole/core/trace/tracer';

const { picture, settings, samples } = workerData as {
  readonly picture: Parameters<Tracer['load']>[0];
  readonly settings: TraceSettings;
  readonly samples: number;
};
const tracer = new Tracer();
tracer.load(picture, settings);
parentPort!.on('message', (tile: Tile) => {
  const part = tracer.samples(tile, 0, samples);
  parentPort!.postMessage({ tile, part }, [part.buffer as ArrayBuffer]);
});
parentPort!.postMessage('ready');
