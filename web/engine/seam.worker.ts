/// <reference lib="webworker" />
import { ribbonGap, ribbonSteps } from '@maypole/core/seam/measure';
import type { FromSeam, RibbonMeasure, SeamJob } from './protocol';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const post = (message: FromSeam) => scope.postMessage(message);
let newest = 0;

/** Lets waiting messages in, so that a newer job can be noticed. */
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve));

async function measure(job: SeamJob): Promise<void> {
  const { piece, detail, id } = job;
  const ribbons: RibbonMeasure[] = [];
  for (const ribbon of piece.ribbons) {
    await breathe();
    if (newest !== id) return;
    const gap = ribbonGap(piece, ribbon, detail);
    ribbons.push({ id: ribbon.id, name: ribbon.name, largest: gap.largest, by: gap.by });
  }
  post({ type: 'gaps', id, ribbons });
  if (!job.steps) return;
  const total = piece.loop.frames * piece.ribbons.length;
  const full: RibbonMeasure[] = [];
  for (const [i, ribbon] of piece.ribbons.entries()) {
    const steps = await ribbonSteps(piece, ribbon, detail, async (done) => {
      if (done % 4 === 0) post({ type: 'progress', id, done: i * piece.loop.frames + done, total });
      await breathe();
      return newest === id;
    });
    if (!steps) return;
    full.push({ ...ribbons[i], steps: [...steps] });
  }
  post({ type: 'steps', id, ribbons: full });
}

scope.onmessage = ({ data }: MessageEvent<SeamJob>) => {
  newest = data.id;
  measure(data).catch((error: unknown) => post({ type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) }));
};
