import { gcd } from '../../maths/rational';
import { brief, defineStep, type StepSeam } from '../step';
import { streamAt } from './stream-at';
import { streamParams, type StreamValues } from './stream-params';

/** Bursts every few frames close if the loop is a whole number of them. */
function seam(v: StreamValues, frames: number): StepSeam | null {
  if (v.by !== 'every' || frames % v.every === 0) return null;
  const near = [...Array(frames).keys()].map((i) => i + 1).filter((k) => frames % k === 0);
  near.sort((a, b) => Math.abs(a - v.every) - Math.abs(b - v.every));
  return {
    words:
      `A loop of ${frames} frames is no whole number of releases every ${v.every} frames, so the stream is ` +
      'another one in each loop.',
    loops: v.every / gcd(frames, v.every),
    repairs: near.slice(0, 2).map((k) => ({ words: `Every ${k} frame${k === 1 ? '' : 's'}`, values: { every: k } })),
  };
}

/** Particles released round the loop. It needs no run-up, because every frame is computed independently. */
export const stream = defineStep({
  kind: 'stream',
  title: 'Stream',
  help: 'Releases copies as particles that fly, fall, drift in a current, land and vanish.',
  icon: 'stream',
  group: 'repeat',
  params: streamParams,
  summary: (v) =>
    `${v.by === 'count' ? `${v.count} a loop` : `every ${v.every} frames`}, live ${brief(v.life)} loop${v.life === 1 ? '' : 's'}`,
  reads: { copies: true, detail: true, clock: true, loop: true },
  seam,
  evaluate: streamAt,
});
