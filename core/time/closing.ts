import type { NumberParam, NumberValue, Unit } from '../declare/params';
import type { Rational } from '../maths/rational';

/** A change that would close a motion, in words. */
export interface Candidate {
  readonly words: string;
  readonly help?: string;
  readonly motion: NumberValue;
}

/** What closing a motion needs to know of its value. */
export type ClosingTarget = Pick<NumberParam, 'cyclic'> & { readonly unit: Unit };

/** The nearest whole numbers of turns, nearest first; never 0, which would stop the motion. */
export function wholeTurnsNear(turns: Rational): number[] {
  const x = turns.num / turns.den;
  const candidates = [Math.floor(x), Math.ceil(x)].map((k) => (k === 0 ? Math.sign(x) || 1 : k));
  return [...new Set(candidates)].sort((a, b) => Math.abs(a - x) - Math.abs(b - x));
}

export function turnWords(k: number): string {
  return `${k} ${Math.abs(k) === 1 ? 'turn' : 'turns'}`;
}

/** Effect of changing the gain. */
export const GAIN_HELP = 'Changes what is gained from the last key to the first';

/** Gains near `adds` that leave the value unchanged. */
export function closedGains(adds: number, cyclic: number | undefined): number[] {
  if (!cyclic) return [0];
  const x = adds / cyclic;
  return [...new Set([Math.round(x), Math.floor(x), Math.ceil(x)].map((k) => (k === 0 ? 0 : k * cyclic)))];
}

export function gainWords(gain: number, param: ClosingTarget): string {
  if (param.cyclic && gain !== 0) return `Adds ${turnWords(gain / param.cyclic)}`;
  return gain === 0 ? 'Adds nothing' : `Adds ${gain} ${param.unit}`;
}
