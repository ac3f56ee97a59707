import type { Clock } from './loop';
import type { Rational } from '../maths/rational';

/**
 * The fractional part, in [0, 1), of `turns · frame / frames`.
 *
 * For whole frames it is reduced in integer arithmetic, ((p·f) mod (q·N)) / (q·N) for p/q turns, so that with whole
 * turns the phase at f = N is the same double as at f = 0: closing is exact, not approximate.
 */
export function phaseOf(turns: Rational, clock: Clock): number {
  const span = turns.den * clock.frames;
  let r = (turns.num * clock.frame) % span;
  if (clock.loops) r = (r + ((turns.num * clock.loops) % turns.den) * clock.frames) % span;
  if (r < 0) r += span;
  const phase = r / span;
  // A tiny negative remainder can round up to a full span.
  return phase >= 1 ? 0 : phase + 0;
}

/** Fractional part in [0, 1) of any real number. */
export function fract(x: number): number {
  const r = x - Math.floor(x);
  return r >= 1 ? 0 : r;
}

/** Exact phase of a whole number of turns. */
export function wholePhase(turns: number, clock: Clock): number {
  return phaseOf({ num: turns, den: 1 }, clock);
}

/**
 * Position in a period of whole loops: `frame` in [0, loops·N), and the number of periods gone by, a whole number.
 * Exact for whole frames, like `phaseOf`.
 *
 * @param loops length of the period in loops, a whole number ≥ 1
 */
export function splitTime(clock: Clock, loops = 1): { frame: number; cycles: number } {
  const span = loops * clock.frames;
  const gone = clock.loops ?? 0;
  let r = clock.frame % span;
  if (gone) r += (gone % loops) * clock.frames;
  r %= span;
  if (r < 0) r += span;
  // A tiny negative remainder can round up to a full span.
  if (r >= span || r === 0) r = 0;
  return { frame: r, cycles: cyclesOf(clock, r, span) };
}

function cyclesOf(clock: Clock, rest: number, span: number): number {
  return Math.round((clock.frame - rest + (clock.loops ?? 0) * clock.frames) / span);
}

/** Number of periods of `loops` whole loops gone by. */
export function cyclesGone(clock: Clock, loops = 1): number {
  return splitTime(clock, loops).cycles;
}
