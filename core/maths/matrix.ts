/** Determinant of the linear part of a column-major 4 × 4 matrix. */
export function determinant(m: ArrayLike<number>): number {
  return m[0] * (m[5] * m[10] - m[9] * m[6]) - m[4] * (m[1] * m[10] - m[9] * m[2]) + m[8] * (m[1] * m[6] - m[5] * m[2]);
}

/** Inverse of a column-major 4 × 4 matrix whose last row is 0, 0, 0, 1: its upper three rows, 12 numbers by rows. */
export function inverseRows(m: ArrayLike<number>): number[] {
  const out: number[] = new Array(12);
  putInverseRows(m, out, 0);
  return out;
}

/** The same, put among other numbers from a place on. */
export function putInverseRows(m: ArrayLike<number>, to: { [i: number]: number }, at: number): void {
  const d = 1 / determinant(m);
  const row = (r: number, x: number, y: number, z: number) => {
    to[at + 4 * r] = x;
    to[at + 4 * r + 1] = y;
    to[at + 4 * r + 2] = z;
    to[at + 4 * r + 3] = -(x * m[12] + y * m[13] + z * m[14]);
  };
  row(0, (m[5] * m[10] - m[9] * m[6]) * d, (m[8] * m[6] - m[4] * m[10]) * d, (m[4] * m[9] - m[8] * m[5]) * d);
  row(1, (m[9] * m[2] - m[1] * m[10]) * d, (m[0] * m[10] - m[8] * m[2]) * d, (m[8] * m[1] - m[0] * m[9]) * d);
  row(2, (m[1] * m[6] - m[5] * m[2]) * d, (m[4] * m[2] - m[0] * m[6]) * d, (m[0] * m[5] - m[4] * m[1]) * d);
}

/** Whether a column-major matrix of 16 numbers is the identity. */
export function isIdentity(m: ArrayLike<number>): boolean {
  for (let i = 0; i < 16; i++) if (m[i] !== (i % 5 === 0 ? 1 : 0)) return false;
  return true;
}
