import { widened } from '../../declare/widen';
import type { MotionKind } from '../motion';
import { follow } from './follow';
import { formula } from './formula';
import { keys } from './keys';
import { stairs } from './stairs';
import { wander } from './wander';
import { wave } from './wave';

/** Every kind of motion, in the order of the popover. A constant is a plain number. */
export const motionKinds = widened<readonly MotionKind[]>([keys, wave, wander, stairs, formula, follow]);

const byKind = new Map(motionKinds.map((m) => [m.kind, m]));

/** The declaration of a kind; throws a RangeError naming an unknown one. */
export function motionKind(kind: string): MotionKind {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no motion called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}
