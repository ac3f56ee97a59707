import type { NumberValue } from '../declare/params';
import type { Clock } from './loop';
import type { MotionDoc } from './motion';
import { motionKind } from './motions/index';
import type { Rational } from './rational';

export function isMoving(value: unknown): value is MotionDoc {
  return typeof value === 'object' && value !== null && 'motion' in value;
}

/** A stored number at an unwrapped frame. */
export function evaluateNumber(value: NumberValue, clock: Clock): number {
  return isMoving(value) ? motionKind(value.motion).evaluate(value as never, clock) : value;
}

/** Change of a stored number per frame. */
export function derivativeOf(value: NumberValue, clock: Clock): number {
  return isMoving(value) ? motionKind(value.motion).derivative(value as never, clock) : 0;
}

/** Turns per loop of a stored number; a still one turns 0 times. */
export function turnsOf(value: NumberValue): Rational {
  return isMoving(value) ? motionKind(value.motion).turns(value as never) : { num: 0, den: 1 };
}
