import type { RibbonDoc, StepDoc } from '@maypole/core/piece/piece';
import { stepKind } from '@maypole/core/steps/index';
import { copiesAsOf } from '@maypole/core/steps/step';

/** Whether copies enter a step, judging by the steps before it. */
export function copiesBefore(ribbon: Pick<RibbonDoc, 'steps'>, index: number): boolean {
  let copies = false;
  for (const step of ribbon.steps.slice(0, index)) {
    if (!step.on) continue;
    const kind = stepKind(step.kind);
    if (kind.reads?.copies) copies = kind.copiesAfter?.(step.values, copies) ?? true;
    else if (copiesAsOf(kind, step.copies) === 'one') copies = false;
  }
  return copies;
}

const FAN = 5;

/**
 * Delays of some copies, as shares of the loop: of the step itself, and of repeats after it. Empty if all are in step.
 */
export function fanOf(steps: readonly StepDoc[], index: number, frames: number): number[] {
  const own = steps[index];
  const shares: number[] = [];
  const add = (each: number, count: number) => {
    for (let i = 1; i <= FAN && i < Math.max(2, count); i++)
      shares.push(each * Math.max(1, Math.floor((count - 1) / FAN)) * i);
  };
  const number = (s: StepDoc, name: string) => (typeof s.values[name] === 'number' ? (s.values[name] as number) : 0);
  if (own.kind === 'vary') {
    if (number(own, 'behind') !== 0) add(number(own, 'behind') / 100, FAN + 1);
    if (number(own, 'scattered') !== 0)
      for (let i = 1; i <= FAN; i++) shares.push((number(own, 'scattered') / 100) * (i / FAN));
  }
  for (const s of steps.slice(index + 1)) {
    if (!s.on) continue;
    if (number(s, 'later') !== 0 && stepKind(s.kind).reads?.copies)
      add(number(s, 'later') / frames, number(s, 'count') || FAN + 1);
    if (s.kind === 'vary' && s.values.what === 'late')
      for (let i = 0; i <= FAN; i++)
        shares.push((number(s, 'lateFrom') + ((number(s, 'lateTo') - number(s, 'lateFrom')) * i) / FAN) / 100);
  }
  return [...new Set(shares.filter((x) => x !== 0))].slice(0, 2 * FAN);
}
