/// <reference lib="webworker" />
import { makeReady } from '@maypole/core/evaluate/assets';
import { fetchAsset } from './assets';
import { Evaluator } from './evaluator';
import type { ToEvaluator } from './protocol';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const evaluator = new Evaluator();

scope.onmessage = ({ data }: MessageEvent<ToEvaluator>) => {
  const work = () => {
    const answer = evaluator.handle(data);
    if (answer) scope.postMessage(answer.message, answer.transfer);
  };
  const wait = data.type === 'evaluate' ? makeReady(data.ribbon, fetchAsset) : null;
  // A library that cannot be fetched is missed by its step, which says so.
  if (wait) void wait.then(work, work);
  else work();
};
