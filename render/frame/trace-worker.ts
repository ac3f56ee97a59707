/** A thread that traces the tiles it is given, of one picture after another. */
import { parentPort } from 'node:worker_threads';
import { provideAsset } from '@maypole/core/files/store';
import { Exposure } from '@maypole/core/trace/exposure';
import type { FromThread, ToThread } from './trace-crew';

let exposure: Exposure | undefined;
let samples = 1;

const say = (message: FromThread, transfer: ArrayBuffer[] = []) => parentPort!.postMessage(message, transfer);

parentPort!.on('message', (message: ToThread) => {
  try {
    if (message.type === 'picture') {
      for (const [name, asset] of message.files) provideAsset(name, asset);
      exposure = new Exposure(message.pictures, message.settings, exposure?.free);
      samples = message.samples;
      return say({ type: 'ready' });
    }
    const part = exposure!.traced(message.tile, samples);
    const buffers = [part.sums, part.features, ...(part.passes ? [part.passes] : [])];
    say(
      { type: 'tile', tile: message.tile, part },
      buffers.map((b) => b.buffer as ArrayBuffer),
    );
  } catch (error) {
    exposure = undefined;
    const { name, message: words } = error instanceof Error ? error : { name: 'Error', message: String(error) };
    say({ type: 'failed', name, message: words });
  }
});
