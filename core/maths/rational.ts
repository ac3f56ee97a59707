/** Exact fractions with integer numerator and denominator, for whole turns and periods. */
export interface Rational {
  /** Signed integer. */
  readonly num: number;
  /** Positive integer, coprime to `num`. */
  readonly den: number;
}

/** Greatest common divisor of two integers; `gcd(0, 0)` is 0. Euclid's algorithm. */
export function gcd(a: number, b: number): number {
  a = Math.abs(a);
  b = Math.abs(b);
  while (b !== 0) [a, b] = [b, a % b];
  return a;
}

/** Least common multiple of two positive integers. */
export function lcm(a: number, b: number): number {
  return (a / gcd(a, b)) * b;
}

/** A reduced fraction. Throws a RangeError for a zero denominator or parts that are not integers. */
export function rational(num: number, den = 1): Rational {
  if (!Number.isSafeInteger(num) || !Number.isSafeInteger(den) || den === 0)
    throw new RangeError(`${num}/${den} is not a fraction of two whole numbers.`);
  const g = gcd(num, den) || 1;
  const sign = den < 0 ? -1 : 1;
  return { num: (sign * num) / g, den: (sign * den) / g };
}

/**
 * The fraction a person means by a typed decimal: the simplest one within `tolerance`, found by
 * continued fractions (Hardy & Wright, An Introduction to the Theory of Numbers, ch. X), so that
 * 0.3333333 becomes 1/3 and 1.5 becomes 3/2.
 */
export function toRational(value: number, tolerance = 1e-7, maxDen = 100_000): Rational {
  if (!Number.isFinite(value)) throw new RangeError(`${value} is not a finite number.`);
  let [p0, q0, p1, q1] = [0, 1, 1, 0];
  let x = value;
  for (let i = 0; i < 40; i++) {
    const a = Math.floor(x);
    const p2 = a * p1 + p0;
    const q2 = a * q1 + q0;
    if (q2 > maxDen && q1 > 0) break;
    [p0, q0, p1, q1] = [p1, q1, p2, q2];
    if (Math.abs(p1 / q1 - value) <= tolerance || x === a) break;
    x = 1 / (x - a);
  }
  return rational(p1, q1);
}

export function isWhole(r: Rational): boolean {
  return r.den === 1;
}

/** "3", "3/2", for messages. */
export function formatRational(r: Rational): string {
  return r.den === 1 ? `${r.num}` : `${r.num}/${r.den}`;
}
