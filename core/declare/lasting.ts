import type { NumberParam } from './params';

/** Unit of a duration: frames, or a share of the loop. */
export type TimeUnit = 'frames' | '%';

/** The unit a duration is stored in; null for other values. */
export function timeUnitOf({ time, unit }: Pick<NumberParam, 'unit' | 'time'>): TimeUnit | null {
  return time && (unit === 'frames' || unit === '%') ? unit : null;
}

/**
 * Converts a duration to another unit.
 *
 * @param frames length of the loop, ≥ 1
 */
export function inTimeUnit(value: number, from: TimeUnit, to: TimeUnit, frames: number): number {
  if (from === to) return value;
  return to === 'frames' ? (value * frames) / 100 : (value * 100) / frames;
}
