import type { Vec3 } from './vec3';

/** A rotation as a unit quaternion [x, y, z, w] (Hamilton's convention, w the real part). */
export type Quaternion = readonly [number, number, number, number];

export const IDENTITY: Quaternion = [0, 0, 0, 1];

/** Right-handed rotation about an axis, which need not have unit length; identity for an axis of length 0. */
export function axisAngle(axis: Vec3, degrees: number): Quaternion {
  const length = Math.hypot(...axis);
  if (length === 0) return IDENTITY;
  const [s, c] = sinCosDegrees(degrees / 2, 720);
  return [(axis[0] / length) * s, (axis[1] / length) * s, (axis[2] / length) * s, c];
}

/**
 * Sine and cosine of an angle in degrees, exact at multiples of 90°, so that whole and quarter turns return to the last
 * bit.
 *
 * @param cycle multiple of 360 that is removed beforehand
 */
export function sinCosDegrees(degrees: number, cycle = 360): [number, number] {
  const a = degrees % cycle;
  const quarter = Math.round(a / 90);
  const r = ((a - 90 * quarter) * Math.PI) / 180;
  const [s, c] = [Math.sin(r), Math.cos(r)];
  switch (((quarter % 4) + 4) % 4) {
    case 0:
      return [s, c];
    case 1:
      return [c, -s];
    case 2:
      return [-s, -c];
    default:
      return [-c, s];
  }
}

/** Applies b first, then a. */
export function multiply(a: Quaternion, b: Quaternion): Quaternion {
  return [
    a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
    a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
    a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
    a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
  ];
}

/** Rotation about x, then y, then z, in degrees: the meaning of every vector of angles. */
export function turnXYZ([x, y, z]: Vec3): Quaternion {
  return multiply(axisAngle([0, 0, 1], z), multiply(axisAngle([0, 1, 0], y), axisAngle([1, 0, 0], x)));
}

/** The same rotation as a matrix, nine numbers by rows. */
export function matrixOf([x, y, z, w]: Quaternion): readonly number[] {
  return [
    1 - 2 * (y * y + z * z),
    2 * (x * y - z * w),
    2 * (x * z + y * w),
    2 * (x * y + z * w),
    1 - 2 * (x * x + z * z),
    2 * (y * z - x * w),
    2 * (x * z - y * w),
    2 * (y * z + x * w),
    1 - 2 * (x * x + y * y),
  ];
}

export function rotate(q: Quaternion, v: Vec3): [number, number, number] {
  const m = matrixOf(q);
  return [
    m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
    m[3] * v[0] + m[4] * v[1] + m[5] * v[2],
    m[6] * v[0] + m[7] * v[1] + m[8] * v[2],
  ];
}

/** Spherical interpolation the shorter way (K. Shoemake, “Animating rotation with quaternion curves”, 1985). */
export function slerp(a: Quaternion, b: Quaternion, x: number): Quaternion {
  let dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3];
  const sign = dot < 0 ? -1 : 1;
  dot *= sign;
  let [p, q] = [1 - x, x];
  if (dot < 0.999999) {
    const angle = Math.acos(dot);
    const s = Math.sin(angle);
    [p, q] = [Math.sin((1 - x) * angle) / s, Math.sin(x * angle) / s];
  }
  q *= sign;
  const out = [p * a[0] + q * b[0], p * a[1] + q * b[1], p * a[2] + q * b[2], p * a[3] + q * b[3]] as const;
  const length = Math.hypot(...out);
  return [out[0] / length, out[1] / length, out[2] / length, out[3] / length];
}

/**
 * Points rotated about the origin after `before` was added, then translated by `after`.
 *
 * @param positions 3 numbers per point
 */
export function moved(positions: Float32Array, q: Quaternion, before: Vec3, after: Vec3): Float32Array {
  const m = matrixOf(q);
  const out = new Float32Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i] + before[0], positions[i + 1] + before[1], positions[i + 2] + before[2]];
    out[i] = m[0] * x + m[1] * y + m[2] * z + after[0];
    out[i + 1] = m[3] * x + m[4] * y + m[5] * z + after[1];
    out[i + 2] = m[6] * x + m[7] * y + m[8] * z + after[2];
  }
  return out;
}
