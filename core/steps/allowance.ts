import { StepProblem } from '../declare/step-problem';

/** Work of a step that is large enough to be asked for, in what it makes, tries or works out. */
export const ASKED_FROM = { faces: 750_000, copies: 250_000, tries: 6_000_000, distances: 30_000_000 } as const;
export type Cost = keyof typeof ASKED_FROM;

/** A step that would do much work, and waits until it is asked to. */
export class StepWaits extends StepProblem {
  readonly waits = true;
}

let asks = false;

/**
 * Does some work in which steps that cost much wait to be asked for, instead of being worked out at once. The work must
 * not be asynchronous: there is one such setting for the thread.
 */
export function askingFirst<T>(first: boolean, work: () => T): T {
  const before = asks;
  asks = first;
  try {
    return work();
  } finally {
    asks = before;
  }
}

const inMillions = (n: number) => (n >= 1e6 ? `${(n / 1e6).toFixed(1)} million` : `${Math.round(n / 1000)} thousand`);

/** @throws StepWaits where so much is to be asked for first */
export function checkCost(cost: Cost, amount: number, remedy: string): void {
  if (!asks || amount <= ASKED_FROM[cost]) return;
  const verb = cost === 'tries' ? 'try' : cost === 'distances' ? 'work out' : 'make';
  const words = `${verb} ${inMillions(amount)} ${cost === 'tries' ? 'places' : cost}`;
  throw new StepWaits(`This would ${words}, which takes a while, so it waits. ${remedy}`);
}
