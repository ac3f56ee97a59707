import type { Evaluated, NumberParam, NumberValue, Params } from '../declare/params';
import type { Candidate, ClosingTarget } from './closing';
import type { MotionDoc } from '../declare/documents';
import type { Clock } from './loop';
import type { Rational } from '../maths/rational';

export type { LayerDoc, MotionDoc, TimingDoc } from '../declare/documents';

/** What is known of a motion without evaluating it. */
export interface Course {
  /** Cycles per loop; it repeats after `den` loops. */
  readonly turns: Rational;
  /** Gain per `den` loops. */
  readonly adds: number;
  /** Whether that was proved from its settings, or measured. */
  readonly by: 'proof' | 'measure';
  /** No repetition was found. */
  readonly open: boolean;
  /** Corners or jumps belong to its form, so that one at the seam is acceptable. */
  readonly sharp: boolean;
}

/**
 * A prepared motion: its value at a moment is base(clock) + adds · cycles, where cycles counts the periods of
 * `course.turns.den` loops gone by. Kept apart so that gains of whole turns can be removed from an angle exactly.
 */
export interface Prepared {
  base(clock: Clock): number;
  /** Change per frame; at a jump or corner, the limit from the right. */
  speed(clock: Clock): number;
  readonly course: Course;
}

export type MotionTarget = Pick<NumberParam, 'min' | 'max' | 'soft' | 'integer'> & { readonly cyclic?: number };

/** A kind of motion, declared once. */
export interface MotionKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  readonly params: P;
  /**
   * Settings in the unit of the moving value: a 'value' is clamped to its range, a 'change' may be as large as that
   * range either way.
   */
  readonly ofValue: Readonly<Record<string, 'value' | 'change'>>;
  /** One of its settings is the number of turns per loop; otherwise it is repeated. */
  readonly turns?: boolean;
  /** Its settings stay as they are in a longer loop. */
  goesOn?(settings: MotionDoc): boolean;
  /** Changes that might close open settings, likeliest first; each is tried before it is offered. */
  closing?(settings: MotionDoc, param: ClosingTarget, course: Course): readonly Candidate[];
  /** A few words for its lane, in place of turns and gains. */
  words?(settings: MotionDoc): string;
  /** Settings of a new motion for a value that is `value` now. */
  start(value: number, param: MotionTarget): Partial<Evaluated<P>>;
  /**
   * Prepares settings for a loop of `frames` frames: once, then evaluated often.
   *
   * @param other prepares another value in the same loop, for motions that follow one
   */
  prepare(settings: Evaluated<P>, frames: number, other: (value: NumberValue) => Prepared): Prepared;
}

export function defineMotion<const P extends Params>(kind: MotionKind<P>): MotionKind<P> {
  return kind;
}

export const WHOLE: Rational = { num: 1, den: 1 };

/** Course of a motion that closes by construction. */
export function closedCourse(turns: Rational = WHOLE, sharp = false): Course {
  return { turns, adds: 0, by: 'proof', open: false, sharp };
}

/**
 * Range of a new swing around a value: a third of the value each way, at least a hundredth and at most a fifth of the
 * scrub range; a tenth of that range around 0, and a twelfth of a turn for an angle. It is kept within the hard limits
 * by moving the pair, not by clipping it.
 */
export function swingAround(value: number, param: MotionTarget): { low: number; high: number } {
  const span = param.soft[1] - param.soft[0];
  const wanted = param.cyclic
    ? param.cyclic / 12
    : value === 0
      ? span / 10
      : Math.min(span / 5, Math.max(span / 100, Math.abs(value) / 3));
  const reach = param.integer ? Math.max(1, wanted) : wanted;
  const round = (x: number) => (param.integer ? Math.round(x) : Number(x.toPrecision(3)));
  let low = round(value - reach);
  let high = round(value + reach);
  if (low < param.min) [low, high] = [param.min, Math.min(param.max, high + (param.min - low))];
  if (high > param.max) [low, high] = [Math.max(param.min, low - (high - param.max)), param.max];
  return { low, high };
}
