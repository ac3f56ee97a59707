import type { Evaluated, NumberParam, NumberValue, Params } from '../declare/params';
import type { Candidate, ClosingTarget } from './closing';
import type { MotionDoc } from '../declare/documents';
import type { Clock } from './loop';
import type { Rational } from '../maths/rational';

export type { LayerDoc, MotionDoc, TimingDoc } from '../declare/documents';

/** What is known of a motion without playing it. */
export interface Course {
  /** Cycles per loop; it repeats after `den` loops. */
  readonly turns: Rational;
  /** What the value gains each time `den` loops have gone by. */
  readonly adds: number;
  /** Whether that follows from its settings, or was found by trying. */
  readonly by: 'proof' | 'measure';
  /** True where no repetition was found. */
  readonly open: boolean;
  /** True where corners or jumps belong to its form, so that one at the seam is none too many. */
  readonly sharp: boolean;
}

/**
 * A motion made ready: its value at a moment is base(clock) + adds · cycles, where cycles counts
 * the periods of `course.turns.den` loops gone by. The two are apart so that a gain by whole turns
 * can be taken off an angle exactly.
 */
export interface Prepared {
  base(clock: Clock): number;
  /** Change per frame; at a jump or corner, from the right. */
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
   * Settings in the unit of the value that moves: a 'value' is held to its range, a 'change' may be
   * as large as that range either way.
   */
  readonly ofValue: Readonly<Record<string, 'value' | 'change'>>;
  /** True where one of its settings says how often it goes round a loop; others are gone through more often. */
  readonly turns?: boolean;
  /** True where settings go on in a longer loop just as they are. */
  goesOn?(settings: MotionDoc): boolean;
  /** What could be changed of settings that do not close, likely ones first; each is tried before it is offered. */
  closing?(settings: MotionDoc, param: ClosingTarget, course: Course): readonly Candidate[];
  /** A few words for its lane, in place of its turns and gains. */
  words?(settings: MotionDoc): string;
  /** Settings of a fresh motion for a value that stands at `value`. */
  start(value: number, param: MotionTarget): Partial<Evaluated<P>>;
  /**
   * Makes settings ready for a loop of `frames` frames. Done once, then evaluated often.
   *
   * @param other makes another value ready in the same loop, for motions that take theirs from it
   */
  prepare(settings: Evaluated<P>, frames: number, other: (value: NumberValue) => Prepared): Prepared;
}

export function defineMotion<const P extends Params>(kind: MotionKind<P>): MotionKind<P> {
  return kind;
}

export const WHOLE: Rational = { num: 1, den: 1 };

/** The course of what closes by construction. */
export function closedCourse(turns: Rational = WHOLE, sharp = false): Course {
  return { turns, adds: 0, by: 'proof', open: false, sharp };
}

/**
 * A swing around a value for a motion that starts out: a third of the value each way, so that what is
 * small swings a little and what is large swings far, but at least a hundredth and at most a fifth of
 * the scrub range; a tenth of that range about 0, and a twelfth of a turn for what comes round. It is
 * held to the hard limits by moving the pair, not by cutting it.
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
