/** A decomposed matrix: translation, rotation as a quaternion x, y, z, w, and scale along each axis. */
export interface Placing {
  readonly at: readonly [number, number, number];
  readonly turn: readonly [number, number, number, number];
  readonly size: readonly [number, number, number];
}

/**
 * Decomposes a matrix whose linear part is a rotation times a scale along each axis (S. W. Shepperd, Quaternion from
 * rotation matrix, 1978); a mirrored one has a negative scale.
 *
 * @param m 16 numbers, column-major
 */
export function placingOf(m: ArrayLike<number>): Placing {
  const column = (k: number) => [m[4 * k], m[4 * k + 1], m[4 * k + 2]];
  const [x, y, z] = [column(0), column(1), column(2)];
  const size = [x, y, z].map((c) => Math.hypot(c[0], c[1], c[2])) as [number, number, number];
  const det =
    x[0] * (y[1] * z[2] - y[2] * z[1]) - y[0] * (x[1] * z[2] - x[2] * z[1]) + z[0] * (x[1] * y[2] - x[2] * y[1]);
  if (det < 0) size[0] = -size[0];
  const r = [x, y, z].map((c, k) => c.map((v) => (size[k] === 0 ? 0 : v / size[k])));
  // A copy of no size is not rotated.
  const e = size.some((s) => s === 0)
    ? [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ]
    : r;
  const [m00, m10, m20] = e[0];
  const [m01, m11, m21] = e[1];
  const [m02, m12, m22] = e[2];
  const squares = [1 + m00 - m11 - m22, 1 - m00 + m11 - m22, 1 - m00 - m11 + m22, 1 + m00 + m11 + m22];
  const largest = squares.indexOf(Math.max(...squares));
  const q =
    largest === 3
      ? [m21 - m12, m02 - m20, m10 - m01, squares[3]]
      : largest === 0
        ? [squares[0], m01 + m10, m02 + m20, m21 - m12]
        : largest === 1
          ? [m01 + m10, squares[1], m12 + m21, m02 - m20]
          : [m02 + m20, m12 + m21, squares[2], m10 - m01];
  const length = Math.hypot(...q) || 1;
  const turn = q.map((v) => v / length) as [number, number, number, number];
  return { at: [m[12], m[13], m[14]], turn, size };
}

/** The same rotation as a quaternion in the hemisphere of another, so that interpolation takes the short way. */
export function nearTo(q: readonly number[], other: ArrayLike<number>): number[] {
  const dot = q.reduce((n, v, k) => n + v * other[k], 0);
  return dot < 0 ? q.map((v) => -v) : [...q];
}
