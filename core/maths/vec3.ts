/** Three numbers: a point, a direction, a size along each axis. */
export type Vec3 = readonly [number, number, number];

/**
 * Builds a triple from a function of the axis.
 *
 * @example
 * vec3((k) => a[k] - b[k]); // the difference of two points
 */
export function vec3<T>(of: (axis: 0 | 1 | 2) => T): [T, T, T] {
  return [of(0), of(1), of(2)];
}

type Three = ArrayLike<number>;

export function add(a: Three, b: Three): [number, number, number] {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
}

export function subtract(a: Three, b: Three): [number, number, number] {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

export function scale(a: Three, by: number): [number, number, number] {
  return [a[0] * by, a[1] * by, a[2] * by];
}

export function dot(a: Three, b: Three): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** Right-handed: x × y = z. */
export function cross(a: Three, b: Three): [number, number, number] {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function distance(a: Three, b: Three): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/**
 * Normalises a vector; null if it is too short.
 *
 * @param least lengths up to this have no direction
 */
export function normalize(a: Three, least = 0): [number, number, number] | null {
  const length = Math.hypot(a[0], a[1], a[2]);
  return length > least ? [a[0] / length, a[1] / length, a[2] / length] : null;
}
