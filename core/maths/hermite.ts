/**
 * The cubic through two values with a slope at each, at x from 0 to 1: the Hermite basis as in glTF 2.0,
 * appendix C.
 *
 * @param rise from the first value to the second
 * @param m0 slope at the first, by x; `m1` at the second
 */
export function hermite(from: number, rise: number, m0: number, m1: number, x: number): number {
  return from + x * (m0 + x * (3 * rise - 2 * m0 - m1 + x * (m0 + m1 - 2 * rise)));
}

/** Its slope, by x. */
export function hermiteSlope(rise: number, m0: number, m1: number, x: number): number {
  return m0 + x * (2 * (3 * rise - 2 * m0 - m1) + 3 * x * (m0 + m1 - 2 * rise));
}
