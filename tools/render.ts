/**
 * A piece in true light, as files: `./maypole render FILE --to FOLDER [--output …] [--frames a-b] [--size WxH]
 * [--samples n]`.
 */
import { mkdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { frameOrder, spreadOut } from '@maypole/core/output/frame-order';
import { outputs } from '@maypole/core/output/index';
import { hasPasses, type FrameImageName } from '@maypole/core/output/frame-image';
import { basesOf } from '@maypole/core/output/bases';
import { deliverOutput, frameImagesFor } from '@maypole/render/deliver';
import { ProgramTrouble } from '@maypole/render/files/program';
import { frameFingerprints } from '@maypole/render/frame/fingerprint';
import { FrameImageStore, type KeptFrameImage } from '@maypole/render/frame/keep';
import { FrameLedger } from '@maypole/render/frame/ledger';
import { TraceCrew } from '@maypole/render/frame/trace-crew';
import { sheetsOf, trueFrame } from '@maypole/render/frame/true-frame';
import { ShapeTrouble } from '@maypole/render/shapes/moving';
import { pieceIn, Unusable } from './draw-options';
import { planOf, renderOptions } from './render-options';

const duration = (seconds: number) =>
  seconds < 90
    ? `${Math.round(seconds)} s`
    : seconds < 5400
      ? `${Math.round(seconds / 60)} min`
      : `${(seconds / 3600).toFixed(1)} h`;

async function main(): Promise<void> {
  const options = renderOptions(process.argv.slice(2));
  const piece = await pieceIn(options.file);
  const { settings, size, frames, items } = planOf(piece, options);
  const order = frameOrder(settings, size);
  if (order.light !== 'true') throw new Error('Files on the command line are made in true light.');
  const sheets = frameImagesFor(items);
  const work = path.join(options.to, '.maypole-frames');
  mkdirSync(work, { recursive: true });
  const store = new FrameImageStore(work);
  const ledger = new FrameLedger(path.join(work, 'frames.jsonl'));
  const fingerprints = frameFingerprints(piece, frames, order);
  const crew = new TraceCrew(options.threads ?? os.availableParallelism());
  const cache = new MeshCache();
  const say = (text: string) => {
    if (process.stderr.isTTY) process.stderr.write(`\r\x1b[K${text}`);
  };
  const begun = performance.now();
  let [made, kept] = [0, 0];
  if (sheets.length > 0)
    for (const [n, index] of spreadOut(frames.length).entries()) {
      const fingerprint = fingerprints[index];
      const known = ledger.of(fingerprint);
      if ((await Promise.all(sheets.map((s) => store.intact(fingerprint, s, known[s])))).every(Boolean)) {
        kept++;
        continue;
      }
      const share = (s: number) => {
        const each = (performance.now() - begun) / 1000 / (made + s);
        const left = made + s > 0.2 ? `, ${duration(each * (frames.length - n - s))} left` : '';
        say(`Frame ${frames[index]}: ${Math.round(100 * s)} %, ${n} of ${frames.length} frames${left}`);
      };
      const drawn = await trueFrame(
        crew,
        piece,
        frames[index],
        { ...order, error: order.error / 100, passes: sheets.some(hasPasses) },
        cache,
        share,
      );
      const row: Partial<Record<FrameImageName, KeptFrameImage>> = {};
      for await (const [sheet, { bytes }] of sheetsOf(drawn, sheets))
        row[sheet] = await store.put(fingerprint, sheet, bytes);
      ledger.add(fingerprint, row);
      made++;
    }
  await crew.close();
  say('');
  if (kept > 0) console.log(`${kept} of ${frames.length} frames were there already.`);
  const named = {
    piece: piece.name,
    ...size,
    fps: piece.loop.fps,
    frames: piece.loop.frames,
    revision: 0,
    date: new Date(),
  };
  const bases = basesOf(items, settings.name, named);
  let sound = true;
  let failed = 0;
  for (const [i, item] of items.entries()) {
    // A failed output does not stop the others.
    try {
      const { files, report } = await deliverOutput({
        item,
        piece,
        size,
        frames,
        sheet: (name, index) => store.file(fingerprints[index], name),
        folder: options.to,
        base: bases[i],
        pattern: settings.name,
        named,
        onShare: (s) => say(`${item.kind}: ${Math.round(100 * s)} %`),
      });
      say('');
      const bytes = files.reduce((n, f) => n + f.bytes, 0);
      const many = files.length > 1 ? ` and ${files.length - 1} more` : '';
      console.log(`${path.join(options.to, files[0].name)}${many}, ${(bytes / 1e6).toFixed(1)} MB. ${report.words}`);
      sound &&= report.sound;
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      say('');
      console.error(`${outputs.get(item.kind).title} could not be made: ${error.message}`);
      failed++;
    }
  }
  // Frames stay if an output is to be tried again.
  if (!options.keepFrames && failed === 0) rmSync(work, { recursive: true, force: true });
  console.log(
    `${frames.length} frames, ${size.width} × ${size.height}, ${duration((performance.now() - begun) / 1000)}.`,
  );
  if (!sound) process.exitCode = 1;
  if (failed > 0) process.exitCode = 2;
}

try {
  await main();
} catch (error) {
  if (!(error instanceof Error)) throw error;
  // Faults that the user can fix are a sentence; anything else is a bug.
  const known = error instanceof Unusable || error instanceof ProgramTrouble || error instanceof ShapeTrouble;
  if (!known && error.name !== 'SceneTooLarge') throw error;
  console.error(error.message);
  process.exitCode = error instanceof Unusable ? error.status : 2;
}
