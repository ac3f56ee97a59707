/**
 * A frame in true light: `./maypole draw FILE --to picture.png|.exr [--frame f] [--size WxH] [--samples n] [--passes]
 * …`.
 */
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { developed } from '@maypole/core/develop/develop';
import { wholeLight } from '@maypole/core/develop/light';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { writeExr } from '@maypole/core/files/exr';
import { writeImage } from '@maypole/core/assets/image';
import { TraceCrew } from '@maypole/render/frame/trace-crew';
import { trueFrame } from '@maypole/render/frame/true-frame';
import { drawOptions, pieceIn, placeTrouble, refusePlace, Unusable } from './draw-options';

async function main(): Promise<void> {
  const options = drawOptions(process.argv.slice(2));
  // Checked first: otherwise the finished picture could not be saved.
  refusePlace(options.to);
  const piece = await pieceIn(options.file);
  const { frame } = options;
  const scale = options.width ? 1 : Math.min(1, 1080 / Math.max(piece.format.width, piece.format.height));
  const width = options.width ?? Math.round(piece.format.width * scale);
  const height = options.height ?? Math.round(piece.format.height * scale);
  const begun = performance.now();
  const crew = new TraceCrew(options.workers ?? os.availableParallelism());
  const drawn = await trueFrame(
    crew,
    piece,
    frame,
    { ...options, width, height, detail: 'final' },
    new MeshCache(),
    (share) => {
      if (process.stderr.isTTY) process.stderr.write(`\r${Math.round(100 * share)} %`);
    },
  );
  await crew.close();
  if (process.stderr.isTTY) process.stderr.write('\r');
  const seconds = ((performance.now() - begun) / 1000).toFixed(1);
  const file = options.to.endsWith('.exr')
    ? writeExr(wholeLight(drawn.clean), width, height, drawn.layers, { exposure: drawn.scene.camera.exposure })
    : writeImage(
        new Uint8Array(developed(drawn.clean, { scene: drawn.scene, clear: options.clear }).buffer),
        width,
        height,
      );
  try {
    writeFileSync(options.to, file);
  } catch (error) {
    throw new Unusable(placeTrouble(options.to, error as NodeJS.ErrnoException));
  }
  const samples =
    options.error > 0
      ? `${drawn.samples.toFixed(1)} samples a pixel of at most ${options.samples}`
      : `${options.samples} samples`;
  const clean = options.denoise ? ', denoised' : '';
  console.log(`${options.to}: frame ${frame}, ${width} × ${height}, ${samples}${clean}, ${seconds} s.`);
}

try {
  await main();
} catch (error) {
  if (!(error instanceof Error)) throw error;
  // Faults that the user can fix are a sentence; anything else is a bug.
  if (!(error instanceof Unusable) && error.name !== 'SceneTooLarge') throw error;
  console.error(error.message);
  process.exitCode = error instanceof Unusable ? error.status : 2;
}
