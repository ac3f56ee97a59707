import { StepProblem } from '../declare/step-problem';

/** Work from which a step waits to be asked, by what it makes or tries. */
export const ASKED_FROM = { faces: 750_000, copies: 250_000, tries: 6_000_000, distances: 30_000_000 } as const;
export type Cost = keyof typeof ASKED_FROM;

/** A step that would take long, and waits until the user asks for it. */
export class StepWaits extends StepProblem {
  readonly waits = true;
}

let asks = false;

/**
 * Runs `work` so that expensive steps wait to be asked instead of being evaluated. `work` must be synchronous, because
 * the setting is global to the thread.
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

/** @throws StepWaits if the amount must be asked for first */
export function checkCost(cost: Cost, amount: number, remedy: string): void {
  if (!asks || amount <= ASKED_FROM[cost]) return;
  const verb = cost === 'tries' ? 'try' : cost === 'distances' ? 'work out' : 'make';
  const words = `${verb} ${inMillions(amount)} ${cost === 'tries' ? 'places' : cost}`;
  throw new StepWaits(`This would ${words}, which takes a while, so it waits. ${remedy}`);
}
