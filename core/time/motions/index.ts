import type { MotionKind } from '../motion';
import { wander } from './wander';
import { wave } from './wave';

/** Every kind of motion, in the order the popover offers them. Still is a plain number. */
export const motionKinds = [wave, wander] as readonly MotionKind[] as readonly MotionKind<never>[] as readonly MotionKind[];

const byKind = new Map(motionKinds.map((m) => [m.kind, m]));

/** The declaration of a kind; throws a RangeError naming an unknown one. */
export function motionKind(kind: string): MotionKind {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no motion called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}
