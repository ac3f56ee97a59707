import type { NumberParam } from './params';

/** What a length of time is told in: frames, or a share of the loop. */
export type TimeUnit = 'frames' | '%';

/** The unit a length of time is stored in; null for what is none. */
export function timeUnitOf({ time, unit }: Pick<NumberParam, 'unit' | 'time'>): TimeUnit | null {
  return time && (unit === 'frames' || unit === '%') ? unit : null;
}

/**
 * A length of time in another unit.
 *
 * @param frames length of the loop, ≥ 1
 */
export function inTimeUnit(value: number, from: TimeUnit, to: TimeUnit, frames: number): number {
  if (from === to) return value;
  return to === 'frames' ? (value * frames) / 100 : (value * 100) / frames;
}
