import type { Evaluated, NumberParam, Params } from '../declare/params';
import type { Clock } from './loop';
import type { Rational } from './rational';

/** A moving value as stored: which kind, and that kind's settings (plain numbers and choices). */
export interface MotionDoc {
  readonly motion: string;
  readonly [setting: string]: string | number | boolean;
}

/**
 * A kind of motion, declared once. Settings named `low` and `high` are in the unit of the value
 * that moves and are held to its range.
 */
export interface MotionKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  readonly params: P;
  /** Settings of a fresh motion for a value that stands at `value`. */
  start(value: number, param: Pick<NumberParam, 'min' | 'max' | 'soft' | 'integer'>): Evaluated<P>;
  /** The value at any real, unwrapped frame. */
  evaluate(settings: Evaluated<P>, clock: Clock): number;
  /** Change per frame at any real frame; at a jump, the limit from the right. */
  derivative(settings: Evaluated<P>, clock: Clock): number;
  /** How often it goes through its whole cycle in a loop; it closes when that is a whole number. */
  turns(settings: Evaluated<P>): Rational;
}

export function defineMotion<const P extends Params>(kind: MotionKind<P>): MotionKind<P> {
  return kind;
}

/**
 * A swing around a value for a motion that starts out: a fifth of the scrub range each way, held
 * to the hard limits by moving the pair, not by cutting it.
 */
export function swingAround(value: number, param: Pick<NumberParam, 'min' | 'max' | 'soft' | 'integer'>): { low: number; high: number } {
  const reach = (param.soft[1] - param.soft[0]) / 5;
  const round = (x: number) => (param.integer ? Math.round(x) : Number(x.toPrecision(3)));
  let low = round(value - reach);
  let high = round(value + reach);
  if (low < param.min) [low, high] = [param.min, Math.min(param.max, high + (param.min - low))];
  if (high > param.max) [low, high] = [Math.max(param.min, low - (high - param.max)), param.max];
  return { low, high };
}
