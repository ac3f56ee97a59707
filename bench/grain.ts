import os from 'node:os';
import path from 'node:path';
import { Denoiser } from '@maypole/core/develop/denoise';
import { developed } from '@maypole/core/develop/develop';
import type { LightPicture } from '@maypole/core/develop/light';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { TraceCrew } from '@maypole/render/frame/trace-crew';
import { trueFrame } from '@maypole/render/frame/true-frame';
import { pieceIn } from '../tools/draw-options';
import type { Row } from './table';

/** The denoiser was set by the last four of these; all others were looked at afterwards. */
const PIECES = ['1-fog-signal', '15-barometer-blooms', '2-gimbal', '5-dew-point', '7-sundial', '20-core-sample'];
/** Samples of a picture with grain, and of the one that is taken for what is true; MAYPOLE_BENCH_SAMPLES for fewer. */
const [FEW, MANY] = [16, Number(process.env.MAYPOLE_BENCH_SAMPLES ?? 4096)];
const [width, height] = [320, 200];

/**
 * How much of the error of pictures the denoiser leaves: the root of the mean square difference of display values (0 to
 * 255) from a picture of very many samples, with and without it. MAYPOLE_BENCH_PIECES names other pieces of the demo,
 * divided by commas. Takes some five minutes a piece on two cores, and is only measured where it is named.
 */
export async function grain(): Promise<Row[]> {
  const crew = new TraceCrew(os.availableParallelism());
  const rows: Row[] = [];
  for (const name of process.env.MAYPOLE_BENCH_PIECES?.split(',') ?? PIECES) {
    const piece = await pieceIn(path.join(import.meta.dirname, `../demo/${name}.maypole.json`));
    const traced = (samples: number) =>
      trueFrame(
        crew,
        piece,
        0,
        { width, height, samples, error: 0, denoise: false, detail: 'final', passes: false },
        new MeshCache(),
      );
    const [noisy, truth] = [await traced(FEW), await traced(MANY)];
    const shown = (light: LightPicture) =>
      new Uint8Array(developed(light, { scene: noisy.scene, clear: false }).buffer);
    const [ours, peer] = [new Denoiser().denoised(noisy.light, noisy.features), noisy.light].map((light) =>
      error(shown(light), shown(truth.light)),
    );
    rows.push({
      name: `${name}: error of ${FEW} samples a pixel against ${MANY}, display values`,
      ours,
      peer,
      peerName: 'as it was',
      unit: 'of 255',
      ratio: ours / peer,
    });
  }
  await crew.close();
  return rows;
}

/** Of red, green and blue. */
function error(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (i % 4 < 3) sum += (a[i] - b[i]) ** 2;
  return Math.sqrt(sum / (0.75 * a.length));
}
