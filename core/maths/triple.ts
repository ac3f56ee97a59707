/** Three numbers: a place, a direction, a size along each axis. */
export type Triple = readonly [number, number, number];

/**
 * Three of something, from what is asked for x, y and z.
 *
 * @example
 * triple((k) => a[k] - b[k]); // the difference of two places
 */
export function triple<T>(of: (axis: 0 | 1 | 2) => T): [T, T, T] {
  return [of(0), of(1), of(2)];
}
