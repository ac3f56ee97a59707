/// <reference lib="webworker" />
import { makeReady } from '@maypole/core/evaluate/assets';
import { fetchAsset } from '../../view/stage/fetch-asset';
import { Evaluator } from './evaluator';
import type { FromEvaluator, ToEvaluator } from './protocol';
import { scope } from '../../view/stage/worker-scope';

const evaluator = new Evaluator((id, step) => scope.postMessage({ type: 'at', id, step } satisfies FromEvaluator));

scope.onmessage = ({ data }: MessageEvent<ToEvaluator>) => {
  const work = () => {
    const answer = evaluator.handle(data);
    if (answer) scope.postMessage(answer.message, answer.transfer);
  };
  const wait = data.type === 'evaluate' ? makeReady(data.ribbon, fetchAsset) : null;
  const failed = (error: unknown) =>
    data.type === 'evaluate' &&
    scope.postMessage({
      type: 'failed',
      id: data.id,
      message: error instanceof Error ? error.message : String(error),
    } satisfies FromEvaluator);
  if (wait) void wait.then(work, failed);
  else work();
};
