/** A frame in true light: `./maypole draw FILE --to picture.png|.exr [--frame f] [--size WxH] [--samples n] …`. */
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { Worker } from 'node:worker_threads';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { pictureAt } from '@maypole/core/evaluate/picture-at';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { writeExr } from '@maypole/core/files/exr';
import { writeImage } from '@maypole/core/files/image';
import { developed, lightIn } from '@maypole/core/trace/develop';
import { SUMS, Tracer, type Tile, type TraceSettings } from '@maypole/core/trace/tracer';
import { drawOptions, pieceIn, Unusable, type DrawOptions } from './draw-options';

/** Pixels each way of what a worker is given at a time. */
const TILE = 64;

async function main(): Promise<void> {
  const options = drawOptions(process.argv.slice(2));
  const piece = await pieceIn(options.file);
  const cache = new MeshCache();
  const { frame } = options;
  const picture = pictureAt(piece, frame, (r) => evaluateRibbon(r, piece.loop, frame, 'final', cache).mesh);
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
  };
  const begun = performance.now();
  const sums = await traced({ picture, settings }, options);
  const seconds = ((performance.now() - begun) / 1000).toFixed(1);
  const file = options.to.endsWith('.exr')
    ? writeExr(lightIn(sums, options.samples), width, height)
    : writeImage(
        new Uint8Array(
          developed(sums, options.samples, {
            tile: { x: 0, y: 0, width, height },
            width,
            height,
            scene: picture.scene,
            clear: options.clear,
          }).buffer,
        ),
        width,
        height,
      );
  writeFileSync(options.to, file);
  console.log(`${options.to}: frame ${frame}, ${width} × ${height}, ${options.samples} samples, ${seconds} s.`);
}

type Work = { readonly picture: Parameters<Tracer['load']>[0]; readonly settings: TraceSettings };

/** All samples of a picture, its tiles shared out among workers: whoever takes which, the sums are the same. */
async function traced(work: Work, { samples, workers }: DrawOptions): Promise<Float64Array> {
  const { width, height } = work.settings;
  const tiles: Tile[] = [];
  for (let y = 0; y < height; y += TILE)
    for (let x = 0; x < width; x += TILE)
      tiles.push({ x, y, width: Math.min(TILE, width - x), height: Math.min(TILE, height - y) });
  const sums = new Float64Array(SUMS * width * height);
  let [next, done] = [0, 0];
  const put = (tile: Tile, part: Float64Array) => {
    for (let y = 0; y < tile.height; y++)
      sums.set(
        part.subarray(SUMS * y * tile.width, SUMS * (y + 1) * tile.width),
        SUMS * ((tile.y + y) * width + tile.x),
      );
    done++;
    if (process.stderr.isTTY) process.stderr.write(`\r${Math.round((100 * done) / tiles.length)} %`);
  };
  const count = Math.min(workers ?? os.availableParallelism(), tiles.length);
  if (count <= 1) {
    const tracer = new Tracer();
    tracer.load(work.picture, work.settings);
    for (const tile of tiles) put(tile, tracer.samples(tile, 0, samples));
    return sums;
  }
  await Promise.all(
    Array.from({ length: count }, () => {
      const worker = new Worker(new URL('./draw-worker.mjs', import.meta.url), { workerData: { ...work, samples } });
      return new Promise<void>((resolve, reject) => {
        const give = () => {
          if (next < tiles.length) worker.postMessage(tiles[next++]);
          else void worker.terminate().then(() => resolve());
        };
        worker.on('message', (m: 'ready' | { readonly tile: Tile; readonly part: Float64Array }) => {
          if (m !== 'ready') put(m.tile, m.part);
          give();
        });
        worker.on('error', reject);
      });
    }),
  );
  if (process.stderr.isTTY) process.stderr.write('\r');
  return sums;
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
