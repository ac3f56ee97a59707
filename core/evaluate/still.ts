import type { StepDoc } from '../piece/piece';
import { stepKind } from '../steps/index';
import { readsNow } from '../declare/reads';
import { isMoving } from '../time/value';
import { evaluateValues } from '../time/values';

const known = new WeakMap<StepDoc, boolean>();

function still(step: StepDoc): boolean {
  if (!step.on) return true;
  if (Object.values(step.values).some((v) => isMoving(v) || (Array.isArray(v) && v.some(isMoving)))) return false;
  const kind = stepKind(step.kind);
  if (readsNow(kind.reads, 'clock', evaluateValues(kind.params, step.values, { frame: 0, frames: 100 }))) return false;
  return Object.values(step.others ?? {}).every((r) => standsStill(r.steps));
}

/** Whether nothing of these steps can change from frame to frame. */
export function standsStill(steps: readonly StepDoc[]): boolean {
  return steps.every((step) => {
    let s = known.get(step);
    if (s === undefined) known.set(step, (s = still(step)));
    return s;
  });
}
