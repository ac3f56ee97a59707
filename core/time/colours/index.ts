import { widened } from '../../declare/widen';
import type { ColourValue } from '../../declare/params';
import type { Clock } from '../loop';
import { closedCourse, type Course, type MotionDoc } from '../motion';
import { isMoving } from '../value';
import type { ColourMotionKind, PreparedColour } from './colour-motion';
import { cycle } from './cycle';
import { followColour } from './follow-colour';
import { gradient } from './gradient';

/** Every kind of colour motion, in the order of the popover. */
export const colourMotionKinds = widened<readonly ColourMotionKind[]>([cycle, gradient, followColour]);

const byKind = new Map(colourMotionKinds.map((m) => [m.kind, m]));

export function colourMotionKind(kind: string): ColourMotionKind {
  const found = byKind.get(kind);
  if (!found)
    throw new RangeError(`There is no colour motion called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}

const ready = new WeakMap<MotionDoc, { frames: number; prepared: PreparedColour }>();

export function prepareColour(value: ColourValue, frames: number): PreparedColour {
  if (!isMoving(value)) return { course: closedCourse({ num: 0, den: 1 }), colour: () => value };
  const known = ready.get(value);
  if (known && known.frames === frames) return known.prepared;
  const prepared = colourMotionKind(value.motion).prepare(widened(value), frames, (other) =>
    prepareColour(other, frames),
  );
  ready.set(value, { frames, prepared });
  return prepared;
}

/** A stored colour at an unwrapped frame, as '#rrggbb'. */
export function evaluateColour(value: ColourValue, clock: Clock): string {
  return isMoving(value) ? prepareColour(value, clock.frames).colour(clock) : value;
}

export function colourCourse(value: ColourValue, frames: number): Course {
  return prepareColour(value, frames).course;
}
