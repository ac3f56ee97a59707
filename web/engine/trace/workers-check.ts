import { tilesOf } from '@maypole/core/trace/paths/tiles';
import { REFERENCE_PIECE, referencePiece } from '@maypole/core/trace/reference-piece';
import { SUMS } from '@maypole/core/trace/paths/tile-result';
import type { Checked } from '../../view/check/checked';
import { shareFrames } from './lent-scene';
import type { FromTracer, ToTracer } from './trace-protocol';

/** Numbers of workers that trace a piece, and whether they share its memory. */
const CREWS = [
  { count: 1, shared: false, name: 'by one worker' },
  { count: 2, shared: true, name: 'by 2 workers' },
  { count: 7, shared: true, name: 'by 7 workers' },
  { count: 2, shared: false, name: 'by 2 workers with a memory each' },
] as const;

/** Traces a piece with some workers and with more, and compares the bits with the known ones. */
export async function* checkWorkers(): AsyncGenerator<Checked> {
  for (const { count, shared, name } of CREWS) {
    const differs = (await hashBy(count, shared)) === REFERENCE_PIECE.sha256 ? 0 : 1;
    yield { name: `True light, bit by bit, ${name}`, difference: differs, limit: 0, share: differs };
  }
}

async function hashBy(count: number, shared: boolean): Promise<string> {
  const { frame, samples, settings } = REFERENCE_PIECE;
  const { width, height } = settings;
  const all = new Float64Array(SUMS * width * height);
  const tiles = tilesOf(width, height).length;
  const workers: Worker[] = [];
  try {
    await new Promise<void>((resolve, reject) => {
      let done = 0;
      for (let i = 0; i < count; i++)
        workers.push(new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' }));
      if (shared) shareFrames(workers);
      workers.forEach((worker, index) => {
        worker.onerror = (event) => reject(new Error(event.message || 'A worker ended by itself.'));
        worker.onmessage = ({ data }: MessageEvent<FromTracer>) => {
          if (data.type === 'failed') return reject(new Error(data.message));
          if (data.type !== 'part' || data.samples < samples) return;
          const { tile, part } = data;
          for (let y = 0; y < tile.height; y++)
            all.set(
              part.sums.subarray(SUMS * tile.width * y, SUMS * tile.width * (y + 1)),
              SUMS * ((tile.y + y) * width + tile.x),
            );
          if (++done === tiles) resolve();
        };
        const job = { id: 1, piece: referencePiece(), frame, detail: 'final', settings, samples } as const;
        worker.postMessage({
          type: 'picture',
          job: { ...job, index, of: count, place: [0.5, 0.5] },
        } satisfies ToTracer);
      });
    });
  } finally {
    for (const worker of workers) worker.terminate();
  }
  const digest = await crypto.subtle.digest('SHA-256', all.buffer);
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}
