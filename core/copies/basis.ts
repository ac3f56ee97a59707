import type { Vec3 } from '../maths/vec3';
import type { Quaternion } from '../maths/quaternion';

/**
 * Rotation that takes x, y and z to three orthonormal vectors (S. W. Shepperd, “Quaternion from rotation matrix”,
 * 1978).
 */
export function fromAxes(x: Vec3, y: Vec3, z: Vec3): Quaternion {
  const [m00, m10, m20] = x;
  const [m01, m11, m21] = y;
  const [m02, m12, m22] = z;
  const trace = m00 + m11 + m22;
  // The largest of the four squares is used, so that nothing is divided by a small number.
  const squares = [m00 - m11 - m22, m11 - m00 - m22, m22 - m00 - m11, trace];
  const k = squares.indexOf(Math.max(...squares));
  const s = 2 * Math.sqrt(Math.max(0, 1 + squares[k]));
  if (k === 3) return [(m21 - m12) / s, (m02 - m20) / s, (m10 - m01) / s, s / 4];
  if (k === 0) return [s / 4, (m01 + m10) / s, (m02 + m20) / s, (m21 - m12) / s];
  if (k === 1) return [(m01 + m10) / s, s / 4, (m12 + m21) / s, (m02 - m20) / s];
  return [(m02 + m20) / s, (m12 + m21) / s, s / 4, (m10 - m01) / s];
}

/** Rotation that takes y to a unit vector, and x as close as possible to another direction. */
export function standing(up: Vec3, towards: Vec3): Quaternion {
  const d = up[0] * towards[0] + up[1] * towards[1] + up[2] * towards[2];
  let x: [number, number, number] = [towards[0] - d * up[0], towards[1] - d * up[1], towards[2] - d * up[2]];
  let l = Math.hypot(...x);
  if (l < 1e-6) {
    const other: Vec3 = Math.abs(up[0]) < 0.8 ? [1, 0, 0] : [0, 0, 1];
    const e = up[0] * other[0] + up[1] * other[1] + up[2] * other[2];
    x = [other[0] - e * up[0], other[1] - e * up[1], other[2] - e * up[2]];
    l = Math.hypot(...x);
  }
  x = [x[0] / l, x[1] / l, x[2] / l];
  return fromAxes(x, up, [x[1] * up[2] - x[2] * up[1], x[2] * up[0] - x[0] * up[2], x[0] * up[1] - x[1] * up[0]]);
}
