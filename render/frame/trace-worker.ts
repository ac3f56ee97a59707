/** A thread that traces the tiles it is given, of one picture after another. */
import { parentPort } from 'node:worker_threads';
import { provideAsset } from '@maypole/core/assets/store';
import { BorrowedExposure, Exposure } from '@maypole/core/trace/paths/exposure';
import type { FromThread, ToThread } from './trace-crew';

let own: Exposure | undefined;
let lent: BorrowedExposure | undefined;
let samples = 1;

const say = (message: FromThread, transfer: ArrayBuffer[] = []) => parentPort!.postMessage(message, transfer);

parentPort!.on('message', (message: ToThread) => {
  try {
    if (message.type !== 'tile') {
      for (const [name, asset] of message.files) provideAsset(name, asset);
      samples = message.samples;
      if (message.type === 'lent') {
        lent = new BorrowedExposure(message.lent, lent?.free);
        return say({ type: 'ready', lent: [] });
      }
      own = new Exposure(message.pictures, message.settings, own?.free, message.threads);
      return say({ type: 'ready', lent: own.lend() });
    }
    const part = (own ?? lent)!.traced(message.tile, samples);
    const buffers = [part.sums, part.features, ...(part.passes ? [part.passes] : [])];
    say(
      { type: 'tile', tile: message.tile, part },
      buffers.map((b) => b.buffer),
    );
  } catch (error) {
    own = lent = undefined;
    const { name, message: words } = error instanceof Error ? error : { name: 'Error', message: String(error) };
    say({ type: 'failed', name, message: words });
  }
});
