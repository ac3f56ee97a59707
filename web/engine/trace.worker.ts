/// <reference lib="webworker" />
import { makeReady } from '@maypole/core/evaluate/assets';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { pictureAt } from '@maypole/core/evaluate/picture-at';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { linkPiece } from '@maypole/core/piece/link';
import { Tracer, type Tile } from '@maypole/core/trace/tracer';
import { fetchAsset } from '../view/fetch-asset';
import { pictureFiles } from '../view/picture-files';
import { scope } from '../view/worker-scope';
import { roundsOf, tilesOf } from './tiles';
import type { FromTracer, ToTracer, TraceJob } from './trace-protocol';

/** Paths that are followed before a look at whether they are still wanted. */
const PATHS = 24_000;

const cache = new MeshCache();
const tracer = new Tracer();
let wanted = -1;

const tell = (message: FromTracer, transfer: Transferable[] = []) => scope.postMessage(message, transfer);
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve));

scope.onmessage = ({ data }: MessageEvent<ToTracer>) => {
  if (data.type === 'stop') {
    wanted = -1;
    return;
  }
  wanted = data.job.id;
  trace(data.job).catch((error: unknown) =>
    tell({ type: 'failed', id: data.job.id, message: error instanceof Error ? error.message : String(error) }),
  );
};

async function trace({ id, piece, frame, detail, settings, samples, index, of }: TraceJob): Promise<void> {
  const linked = linkPiece(piece);
  for (const r of linked.ribbons) await makeReady(r, fetchAsset);
  const picture = pictureAt(piece, frame, (r) => evaluateRibbon(r, piece.loop, frame, detail, cache).mesh);
  await pictureFiles(picture);
  // Another may have been asked for while this one was waited for.
  await breathe();
  if (wanted !== id) return;
  tracer.load(picture, settings);
  const tiles = tilesOf(settings.width, settings.height).filter((_, i) => i % of === index);
  const sums = new Map<Tile, Float64Array>();
  let before = 0;
  for (const end of roundsOf(samples)) {
    for (const tile of tiles) {
      const step = Math.max(1, Math.floor(PATHS / (tile.width * tile.height)));
      for (let n = before; n < end; n += step) {
        sums.set(tile, tracer.samples(tile, n, Math.min(end, n + step), sums.get(tile)));
        await breathe();
        if (wanted !== id) return;
      }
      const sent = sums.get(tile)!.slice();
      tell({ type: 'part', id, tile, samples: end, sums: sent }, [sent.buffer]);
    }
    before = end;
  }
}
