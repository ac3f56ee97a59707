import { stepKind, isStepKind } from '@maypole/core/steps/index';
import type { StepKind } from '@maypole/core/steps/step';
import { keepText, keptJson } from '../state/browser-store';

/** How many of the steps added last stand first in the menu. */
const MOST = 3;
const NAME = { form: 'maypole-last-forms', steps: 'maypole-last-steps' } as const;
type StepGroupName = keyof typeof NAME;

/** The kinds added last in this browser, newest first. */
export function lastSteps(group: StepGroupName): readonly StepKind[] {
  const kept = keptJson(NAME[group], []);
  const kinds = Array.isArray(kept) ? kept.filter((k): k is string => typeof k === 'string' && isStepKind(k)) : [];
  return kinds.slice(0, MOST).map(stepKind);
}

export function noteStep(group: StepGroupName, kind: string): void {
  const others = lastSteps(group).map((k) => k.kind);
  keepText(NAME[group], JSON.stringify([kind, ...others.filter((k) => k !== kind)].slice(0, MOST)));
}
