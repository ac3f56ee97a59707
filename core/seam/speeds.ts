import type { NumberValue } from '../declare/params';
import { totalOf } from '../time/layers';
import { prepareMotion } from '../time/value';
import type { MotionDoc } from '../time/motion';

/** A value at the seam, in its unit per frame. */
export interface SeamSpeeds {
  readonly before: number;
  readonly after: number;
  /** Jump right at the seam, from just before f = N to f = N. */
  readonly jump: number;
}

/** Mean and largest absolute speed around the loop. */
export interface LoopSpeeds {
  readonly mean: number;
  readonly largest: number;
}

const PLACES = 16;

/**
 * Speeds on both sides of the seam by one-sided differences over a ten-thousandth of a frame, so that a corner right at
 * it is found.
 */
export function seamSpeeds(value: NumberValue & MotionDoc, frames: number): SeamSpeeds {
  const p = prepareMotion(value, frames);
  const h = 1e-4;
  const at = (frame: number) => totalOf(p, { frame, frames });
  const [end, near, nearer] = [at(frames), at(frames - 2 * h), at(frames - h)];
  // Extrapolating the two points before the seam distinguishes a jump from a steep slope.
  const before = (nearer - near) / h;
  const jump = end - (nearer + before * h);
  return { before, after: (at(h) - at(0)) / h, jump };
}

/** Speeds at even points of the loop. */
export function loopSpeeds(value: NumberValue & MotionDoc, frames: number): LoopSpeeds {
  const p = prepareMotion(value, frames);
  let sum = 0;
  let largest = 0;
  for (let i = 0; i < PLACES; i++) {
    const speed = Math.abs(p.speed({ frame: ((i + 0.5) * frames) / PLACES, frames }));
    sum += speed;
    largest = Math.max(largest, speed);
  }
  return { mean: sum / PLACES, largest };
}
