/// <reference lib="webworker" />
import { makeReady } from '@maypole/core/evaluate/assets';
import { linkPiece } from '@maypole/core/piece/link';
import { judge, measureClosure, withCauses } from '@maypole/core/seam/check';
import { ribbonSteps } from '@maypole/core/seam/measure';
import { proveSeam, type Proof } from '@maypole/core/seam/proof';
import { symmetryRepairs } from '@maypole/core/seam/symmetry';
import { fetchAsset } from '../../view/stage/fetch-asset';
import { yieldToMessages } from './yield';
import type { FromSeam, RibbonMeasure, SeamJob } from './protocol';
import { scope } from '../../view/stage/worker-scope';

const post = (message: FromSeam) => scope.postMessage(message);
let newest = 0;

/** Yields to waiting messages, so that a newer job is noticed. */

function shapesOf({ id, piece, detail }: SeamJob, proof: Proof, ribbons: readonly RibbonMeasure[]): FromSeam {
  const gaps = judge(proof, ribbons).findings.filter((f) => f.kind === 'gap' && !f.closedToTheEye);
  const symmetry = Object.fromEntries(gaps.map((f) => [f.key, symmetryRepairs(piece, f, detail)]));
  return { type: 'shapes', id, ribbons, symmetry };
}

async function measure(job: SeamJob): Promise<void> {
  const { piece, detail, id } = job;
  for (const r of linkPiece(piece).ribbons) await makeReady(r, fetchAsset);
  const proof = proveSeam(piece);
  const measured: RibbonMeasure[] = [];
  for (const ribbon of piece.ribbons) {
    await yieldToMessages();
    if (newest !== id) return;
    post({ type: 'at', id, doing: `making the shape of ${ribbon.name}` });
    measured.push(measureClosure(piece, ribbon, proof, detail));
  }
  post(shapesOf(job, proof, measured));
  const ribbons = await withCauses(piece, proof, measured, detail, async (name) => {
    post({ type: 'at', id, doing: `looking for what opens ${name}` });
    await yieldToMessages();
    return newest === id;
  });
  if (!ribbons) return;
  if (ribbons.some((r) => r.openBy)) post(shapesOf(job, proof, ribbons));
  if (!job.steps) return;
  const total = piece.loop.frames * piece.ribbons.length;
  const full: RibbonMeasure[] = [];
  for (const [i, ribbon] of piece.ribbons.entries()) {
    const steps = await ribbonSteps(piece, ribbon, detail, async (done) => {
      if (done % 4 === 0) post({ type: 'progress', id, done: i * piece.loop.frames + done, total });
      await yieldToMessages();
      return newest === id;
    });
    if (!steps) return;
    full.push({ ...ribbons[i], steps: [...steps] });
  }
  post({ type: 'steps', id, ribbons: full });
}

scope.onmessage = ({ data }: MessageEvent<SeamJob>) => {
  newest = data.id;
  const failed = (error: unknown) =>
    post({ type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) });
  if (data.type === 'measure') return void measure(data).catch(failed);
  try {
    post({ type: 'proof', id: data.id, proof: proveSeam(data.piece) });
  } catch (error) {
    failed(error);
  }
};
