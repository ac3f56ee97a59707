/// <reference lib="webworker" />
import { Evaluator } from './evaluator';
import type { ToEvaluator } from './protocol';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const evaluator = new Evaluator();

scope.onmessage = ({ data }: MessageEvent<ToEvaluator>) => {
  const answer = evaluator.handle(data);
  if (answer) scope.postMessage(answer.message, answer.transfer);
};
