/** A frame in true light: `./maypole draw FILE --to picture.png|.exr [--frame f] [--size WxH] [--samples n] [--passes] …`. */
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { Worker } from 'node:worker_threads';
import { developed } from '@maypole/core/develop/develop';
import { Denoiser, emptyGuides, putGuides } from '@maypole/core/develop/denoise';
import { emptyLight, putTile, wholeLight } from '@maypole/core/develop/light';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { pictureAt, type PictureAt } from '@maypole/core/evaluate/picture-at';
import type { RibbonDoc } from '@maypole/core/piece/piece';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import type { Asset } from '@maypole/core/files/asset';
import { writeExr } from '@maypole/core/files/exr';
import { writeImage } from '@maypole/core/files/image';
import { assetOf } from '@maypole/core/files/store';
import type { Mesh } from '@maypole/core/shape/mesh';
import { Exposure, instantPictures } from '@maypole/core/trace/exposure';
import { motionPass } from '@maypole/core/trace/motion';
import { PassSheet } from '@maypole/core/trace/passes';
import { tilesOf } from '@maypole/core/trace/tiles';
import { COUNT, SUMS, type TraceSettings } from '@maypole/core/trace/tracer';
import { drawOptions, pieceIn, Unusable, type DrawOptions } from './draw-options';
import type { DrawnTile } from './draw-worker';

async function main(): Promise<void> {
  const options = drawOptions(process.argv.slice(2));
  const piece = await pieceIn(options.file);
  const cache = new MeshCache();
  const { frame } = options;
  const shapeOf = (r: RibbonDoc, at: number) => evaluateRibbon(r, piece.loop, at, 'final', cache).mesh;
  const pictures = instantPictures(piece, frame, shapeOf);
  const scale = options.width ? 1 : Math.min(1, 1080 / Math.max(piece.format.width, piece.format.height));
  const width = options.width ?? Math.round(piece.format.width * scale);
  const height = options.height ?? Math.round(piece.format.height * scale);
  const settings: TraceSettings = {
    width,
    height,
    bounces: options.bounces,
    brightest: options.brightest,
    // A loop later it is the same grain.
    grain: options.grain === 'moves' ? 1 + (((frame % piece.loop.frames) + piece.loop.frames) % piece.loop.frames) : 0,
    error: options.error,
    least: options.least,
    passes: options.passes,
  };
  const begun = performance.now();
  const traced = await traceAll({ pictures, settings }, options);
  const light = options.denoise ? new Denoiser().denoised(traced.light, traced.guides) : traced.light;
  const seconds = ((performance.now() - begun) / 1000).toFixed(1);
  const layers = () => [
    ...traced.sheet!.passes(pictures[0].ribbons.map(({ id }) => piece.ribbons.find((r) => r.id === id)!.name)),
    motionPass(
      pictureAt(piece, frame, (r) => shapeOf(r, frame)),
      pictureAt(piece, frame + 1, (r) => shapeOf(r, frame + 1)),
      settings,
    ),
  ];
  const file = options.to.endsWith('.exr')
    ? writeExr(wholeLight(light), width, height, options.passes ? layers() : [])
    : writeImage(
        new Uint8Array(developed(light, { scene: pictures[0].scene, clear: options.clear }).buffer),
        width,
        height,
      );
  writeFileSync(options.to, file);
  const samples =
    options.error > 0
      ? `${traced.samples.toFixed(1)} samples a pixel of at most ${options.samples}`
      : `${options.samples} samples`;
  const clean = options.denoise ? ', denoised' : '';
  console.log(`${options.to}: frame ${frame}, ${width} × ${height}, ${samples}${clean}, ${seconds} s.`);
}

/** What workers are to trace. */
export interface DrawWork {
  readonly pictures: readonly PictureAt<Mesh>[];
  readonly settings: TraceSettings;
}

/** Files that a picture names, for places that do not have them. */
function filesOf({ pictures }: DrawWork): readonly (readonly [string, Asset])[] {
  return pictures[0].files.flatMap((name) => {
    const asset = assetOf(name);
    return asset ? [[name, asset] as const] : [];
  });
}

/** A picture, its tiles shared out among workers: whoever takes which, it is the same. */
async function traceAll(work: DrawWork, { samples, workers }: DrawOptions) {
  const { width, height } = work.settings;
  const tiles = tilesOf(width, height);
  const [light, guides] = [emptyLight(width, height), emptyGuides(width, height)];
  const sheet = work.settings.passes ? new PassSheet(work.pictures[0], width, height) : null;
  let [next, done, taken] = [0, 0, 0];
  const put = ({ tile, part }: DrawnTile) => {
    putTile(light, tile, part.sums);
    putGuides(guides, tile, part);
    sheet?.put(tile, part);
    for (let i = COUNT; i < part.sums.length; i += SUMS) taken += part.sums[i];
    done++;
    if (process.stderr.isTTY) process.stderr.write(`\r${Math.round((100 * done) / tiles.length)} %`);
  };
  const count = Math.min(workers ?? os.availableParallelism(), tiles.length);
  if (count <= 1) {
    const exposure = new Exposure(work.pictures, work.settings);
    for (const tile of tiles) put({ tile, part: exposure.traced(tile, samples) });
  } else
    await Promise.all(
      Array.from({ length: count }, () => {
        const worker = new Worker(new URL('./draw-worker.mjs', import.meta.url), {
          workerData: { ...work, files: filesOf(work), samples },
        });
        return new Promise<void>((resolve, reject) => {
          const give = () => {
            if (next < tiles.length) worker.postMessage(tiles[next++]);
            else void worker.terminate().then(() => resolve());
          };
          worker.on('message', (m: 'ready' | DrawnTile) => {
            if (m !== 'ready') put(m);
            give();
          });
          worker.on('error', reject);
        });
      }),
    );
  if (process.stderr.isTTY) process.stderr.write('\r');
  return { light, guides, sheet, samples: taken / (width * height) };
}

try {
  await main();
} catch (error) {
  if (!(error instanceof Error)) throw error;
  // What the user can mend is said in a sentence; anything else is a fault of ours.
  if (!(error instanceof Unusable) && error.name !== 'SceneTooLarge') throw error;
  console.error(error.message);
  process.exitCode = 2;
}
