/** One coordinate of a cubic Bézier curve from 0 to `end` with inner controls a and b. */
function coordinate(a: number, b: number, end: number, s: number): number {
  return ((end - 3 * b + 3 * a) * s + (3 * b - 6 * a)) * s * s + 3 * a * s;
}

function coordinateSlope(a: number, b: number, end: number, s: number): number {
  return 3 * (end - 3 * b + 3 * a) * s * s + 2 * (3 * b - 6 * a) * s + 3 * a;
}

/**
 * Parameter at which the time of a cubic Bézier curve is x. Both controls lie within 0…1, so time is monotonic (CSS
 * Easing Functions Level 1, § 2.3) and the solution unique: Newton's method inside a shrinking bracket.
 */
export function solveBezier(x1: number, x2: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  let low = 0;
  let high = 1;
  let s = x;
  for (let i = 0; i < 60; i++) {
    const miss = coordinate(x1, x2, 1, s) - x;
    if (Math.abs(miss) < 1e-15) break;
    if (miss > 0) high = s;
    else low = s;
    const slope = coordinateSlope(x1, x2, 1, s);
    const next = s - miss / slope;
    const inside = next > low && next < high;
    const to = inside ? next : (low + high) / 2;
    if (to === s) break;
    s = to;
  }
  return s;
}

/**
 * A cubic Bézier curve from (0, 0) to (1, rise) with controls (x1, y1), (x2, y2): height and slope at time x. x1 and x2
 * are clamped to 0…1. With a rise of 1 it is cubic-bezier of CSS Easing Functions.
 */
export function cubicBezier(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x: number,
  rise = 1,
): { value: number; slope: number } {
  const a = Math.max(0, Math.min(1, x1));
  const b = Math.max(0, Math.min(1, x2));
  const s = solveBezier(a, b, x);
  const run = coordinateSlope(a, b, 1, s);
  const slope = run > 1e-12 ? coordinateSlope(y1, y2, rise, s) / run : endSlope(a, y1, b, y2, rise, s);
  return { value: coordinate(y1, y2, rise, s), slope };
}

/** Where time stands still at an end of the curve, the slope is that towards the next control. */
function endSlope(x1: number, y1: number, x2: number, y2: number, rise: number, s: number): number {
  const ratio = (dy: number, dx: number) => (dy === 0 ? 0 : Math.sign(dy) * Math.min(1e6, Math.abs(dy / dx)));
  if (s <= 0.5) return x1 > 0 ? ratio(y1, x1) : x2 > 0 ? ratio(y2, x2) : rise;
  return x2 < 1 ? ratio(rise - y2, 1 - x2) : x1 < 1 ? ratio(rise - y1, 1 - x1) : rise;
}
