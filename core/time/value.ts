import { widened } from '../declare/widen';
import type { NumberValue } from '../declare/params';
import { totalOf, withLayers } from './layers';
import type { Clock } from './loop';
import { closedCourse, type Course, type MotionDoc, type Prepared } from './motion';
import { motionKind } from './motions/index';
import { cyclesGone } from './phase';
import type { Rational } from '../maths/rational';
import { withTiming } from './timing';

export function isMoving(value: unknown): value is MotionDoc {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && 'motion' in value;
}

const STILL: Course = { ...closedCourse({ num: 0, den: 1 }) };

/** Prepared motions, by document object and by content, so that an equal copy costs nothing either. */
const byDoc = new WeakMap<MotionDoc, { frames: number; prepared: Prepared }>();
const byText = new Map<string, Prepared>();
const MOST_TEXTS = 4000;

/** Prepares a stored motion with its layers and timing for a loop of `frames` frames. */
export function prepareMotion(doc: MotionDoc, frames: number): Prepared {
  const known = byDoc.get(doc);
  if (known && known.frames === frames) return known.prepared;
  const text = `${frames}|${JSON.stringify(doc)}`;
  let prepared = byText.get(text);
  if (!prepared) {
    const plain = withTiming(
      motionKind(doc.motion).prepare(widened(doc), frames, (value) => prepareNumber(value, frames)),
      doc.timing,
    );
    prepared = withLayers(plain, doc.layers, (layer) => prepareMotion(layer, frames));
    if (byText.size >= MOST_TEXTS) byText.clear();
    byText.set(text, prepared);
  }
  byDoc.set(doc, { frames, prepared });
  return prepared;
}

/**
 * Evaluates a stored number at an unwrapped frame.
 *
 * @param cyclic period of the value's meaning, such as 360 for an angle: whole multiples gained per loop are removed
 * exactly
 */
export function evaluateNumber(value: NumberValue, clock: Clock, cyclic?: number): number {
  if (!isMoving(value)) return value;
  const prepared = prepareMotion(value, clock.frames);
  const { adds, turns, open } = prepared.course;
  if (adds === 0 || open) return prepared.base(clock);
  const gained = adds * cyclesGone(clock, turns.den);
  return prepared.base(clock) + (cyclic ? gained % cyclic : gained);
}

/** Change of a stored number per frame; at a jump or corner, the limit from the right. */
export function derivativeOf(value: NumberValue, clock: Clock): number {
  return isMoving(value) ? prepareMotion(value, clock.frames).speed(clock) : 0;
}

/** What is known of a stored number without evaluating it. */
export function courseOf(value: NumberValue, frames: number): Course {
  return isMoving(value) ? prepareMotion(value, frames).course : STILL;
}

/** Turns per loop of a stored number; 0 for a constant. */
export function turnsOf(value: NumberValue, frames = 100): Rational {
  return courseOf(value, frames).turns;
}

/** Whether a value of this course is the same, or the same angle, after one loop. */
export function closes(course: Course, cyclic?: number): boolean {
  return (
    !course.open &&
    course.turns.den === 1 &&
    (course.adds === 0 || (cyclic !== undefined && course.adds % cyclic === 0))
  );
}

/** Prepares a moving or constant number. */
export function prepareNumber(value: NumberValue, frames: number): Prepared {
  return isMoving(value) ? prepareMotion(value, frames) : { course: STILL, base: () => value, speed: () => 0 };
}

export { totalOf };
