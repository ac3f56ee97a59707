/// <reference lib="webworker" />
import { developed } from '@maypole/core/develop/develop';
import { Denoiser, emptyFeatures, putFeatures } from '@maypole/core/develop/denoise';
import { emptyLight, putTile } from '@maypole/core/develop/light';
import { makeReady } from '@maypole/core/evaluate/assets';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { linkPiece } from '@maypole/core/piece/link';
import type { RibbonDoc } from '@maypole/core/piece/piece';
import type { Mesh } from '@maypole/core/shape/mesh';
import { coarseRow, coarseSize } from '@maypole/core/trace/paths/coarse';
import { BorrowedExposure, Exposure, instantPictures, type TileExposure } from '@maypole/core/trace/paths/exposure';
import { SceneGone } from '@maypole/core/trace/memory/memory';
import type { BorrowedTracer } from '@maypole/core/trace/paths/tile-tracer';
import { roundsOf, tilesOf } from '@maypole/core/trace/paths/tiles';
import type { Tracer } from '@maypole/core/trace/paths/tracer';
import type { Tile, TileResult } from '@maypole/core/trace/paths/tile-result';
import { fetchAsset } from '../../view/stage/fetch-asset';
import { pictureFiles } from '../../view/stage/picture-files';
import { scope } from '../../view/stage/worker-scope';
import { yieldToMessages, yieldSometimes } from '../evaluate/yield';
import { Lender, type LentFrame } from './lent-scene';
import type { FromTracer, PictureJob, ToTracer, TraceJob } from './trace-protocol';

const cache = new MeshCache();
/** Memory that has grown for a scene is reused for the next. */
let free: readonly Tracer[] = [];
/** Workers that read scenes laid out here, or the one that lays out scenes read here. */
let borrowers: readonly MessagePort[] = [];
let lender: Lender | null = null;
let borrowed: readonly BorrowedTracer[] = [];
let denoiser: Denoiser | null = null;
let wanted = -1;

const tell = (message: FromTracer, transfer: Transferable[] = []) => scope.postMessage(message, transfer);

scope.onmessage = ({ data }: MessageEvent<ToTracer>) => {
  if (data.type === 'stop') {
    wanted = -1;
    return;
  }
  if (data.type === 'lend') {
    borrowers = data.to;
    return;
  }
  if (data.type === 'borrow') {
    lender = new Lender(data.from);
    return;
  }
  const { job } = data;
  wanted = job.id;
  const work = data.type === 'picture' ? tracePicture(data.job) : traceFrame(job, data.denoise);
  work.catch((error: unknown) => {
    // It has been replaced by the picture that is wanted now.
    if (error instanceof SceneGone) return;
    tell({ type: 'failed', id: job.id, message: error instanceof Error ? error.message : String(error) });
  });
};

/** The scene at the instants of its exposure, with all its files. */
async function picturesOf({ piece, frame, detail, samples }: TraceJob): Promise<readonly PictureAt<Mesh>[]> {
  for (const r of linkPiece(piece).ribbons) await makeReady(r, fetchAsset);
  const shapeOf = (r: RibbonDoc, at: number) => evaluateRibbon(r, piece.loop, at, detail, cache).mesh;
  const pictures = instantPictures(piece, frame, shapeOf, samples);
  await pictureFiles(pictures[0]);
  // Another may have been requested meanwhile.
  await yieldToMessages();
  return pictures;
}

function exposureOf(pictures: readonly PictureAt<Mesh>[], { settings }: TraceJob): Exposure {
  const exposure = new Exposure(pictures, settings, free, 1 + borrowers.length);
  free = exposure.free;
  return exposure;
}

/** The picture in memory, for all workers that trace it; undefined if another is wanted meanwhile. */
async function laidOut(job: PictureJob): Promise<TileExposure | undefined> {
  const { id } = job;
  if (lender) {
    const { lent, files } = await lender.frameOf(id);
    await pictureFiles({ files });
    if (wanted !== id) return undefined;
    const exposure = new BorrowedExposure(lent, borrowed);
    borrowed = exposure.free;
    return exposure;
  }
  const pictures = await picturesOf(job);
  if (wanted !== id) return undefined;
  const exposure = exposureOf(pictures, job);
  const { files } = pictures[0];
  exposure.lend().forEach((lent, i) => borrowers[i].postMessage({ id, lent, files } satisfies LentFrame));
  return exposure;
}

async function tracePicture(job: PictureJob): Promise<void> {
  const { id, settings, samples, index, of, place } = job;
  const exposure = await laidOut(job);
  if (!exposure) return;
  for (let row = index; row < coarseSize(settings.width, settings.height).height; row += of) {
    const sums = coarseRow(exposure, row, settings.width, settings.height);
    tell({ type: 'coarse', id, row, sums }, [sums.buffer]);
    await yieldSometimes();
    if (wanted !== id) return;
  }
  let tiles = tilesOf(settings.width, settings.height, place).filter((_, i) => i % of === index);
  const so = new Map<Tile, TileResult>();
  let before = 0;
  for (const end of roundsOf(samples)) {
    const left: Tile[] = [];
    for (const tile of tiles) {
      for (const part of exposure.round(tile, before, end, so.get(tile))) {
        so.set(tile, part);
        await yieldToMessages();
        if (wanted !== id) return;
      }
      const { sums, features, sampledPixels } = so.get(tile)!;
      if (sampledPixels > 0) left.push(tile);
      const part = { sums: sums.slice(), features: features.slice(), sampledPixels };
      tell({ type: 'part', id, tile, samples: end, part }, [part.sums.buffer, part.features.buffer]);
    }
    // Tiles whose pixels have all converged are done.
    tiles = left;
    before = end;
  }
}

/** A whole frame, as it is shown. */
async function traceFrame(job: TraceJob, denoise: boolean): Promise<void> {
  const { id, frame, settings, samples } = job;
  const { width, height } = settings;
  const pictures = await picturesOf(job);
  if (wanted !== id) return;
  const exposure = exposureOf(pictures, job);
  const [light, guides] = [emptyLight(width, height), emptyFeatures(width, height, pictures[0].scene.camera.exposure)];
  for (const tile of tilesOf(width, height)) {
    let so: TileResult | undefined;
    let before = 0;
    for (const end of roundsOf(samples)) {
      for (const part of exposure.round(tile, before, end, so)) {
        so = part;
        await yieldToMessages();
        if (wanted !== id) return;
      }
      before = end;
    }
    putTile(light, tile, so!.sums);
    putFeatures(guides, tile, so!);
  }
  const clean = denoise ? (denoiser ??= new Denoiser()).denoised(light, guides) : light;
  const pixels = developed(clean, { scene: pictures[0].scene });
  const picture = await createImageBitmap(new ImageData(pixels, width, height));
  tell({ type: 'frame', id, frame, picture }, [picture]);
}
