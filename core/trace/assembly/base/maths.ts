/**
 * Functions of one single-precision number, built from additions, multiplications and divisions alone: every machine
 * rounds those alike (IEEE 754), so that pictures agree in every bit. Stated errors are the largest over the stated
 * range, measured in core/trace/paths/tracer.test.ts.
 */

export const PI: f32 = 3.14159265;

/** Sine of an angle in turns, −1…2; error 4e−6. */
export function sinTurns(turns: f32): f32 {
  let x = turns - floor<f32>(turns + 0.5);
  // −½…½ folded to −¼…¼, where the series is short.
  if (x > 0.25) x = 0.5 - x;
  else if (x < -0.25) x = -0.5 - x;
  const a = x * 6.2831853071795864;
  const s = a * a;
  return a * (1 + s * (-0.16666667 + s * (0.0083333310 + s * (-0.00019840874 + s * 0.0000027525562))));
}

@inline
export function cosTurns(turns: f32): f32 {
  return sinTurns(turns + 0.25);
}

/** eˣ; relative error 3e−7 for −87…87, 0 below, clamped above. */
export function exp(x: f32): f32 {
  if (x < -87) return 0;
  if (x > 87) x = 87;
  const y = x * 1.44269504;
  const whole = floor<f32>(y + 0.5);
  // ln 2 in two parts, so that the remainder is exact to the last bit.
  const r = x - whole * 0.693145752 - whole * 0.00000142860677;
  const p: f32 = 1 + r * (1 + r * (0.5 + r * (0.166666672 + r * (0.0416666493 + r * (0.00833337661 + r * 0.00138888892)))));
  return p * reinterpret<f32>((<i32>whole + 127) << 23);
}

/** Natural logarithm of normal numbers; error 4e−7. */
export function log(x: f32): f32 {
  const bits = reinterpret<i32>(x);
  let power = (bits >> 23) - 127;
  let m = reinterpret<f32>((bits & 0x7fffff) | 0x3f800000);
  // √½ … √2, where the series is short.
  if (m > 1.41421354) {
    m *= 0.5;
    power++;
  }
  // 2 · artanh((m − 1) / (m + 1)).
  const t = (m - 1) / (m + 1);
  const s = t * t;
  const p: f32 = 2 * t * (1 + s * (0.333333343 + s * (0.2 + s * (0.142857149 + s * 0.111111112))));
  return <f32>power * 0.693145752 + (<f32>power * 0.00000142860677 + p);
}

/** Euler’s B(1 + a, 1 + b) = Γ(1 + a) · Γ(1 + b) / Γ(2 + a + b) of numbers from 0 on; relative error 2e−5 up to 20. */
export function beta(a: f32, b: f32): f32 {
  return exp(logGamma(a) + logGamma(b) - logGamma(1 + a + b));
}

/** Logarithm of Γ(1 + x) by Stirling’s series, from x + 5 on (P. J. Davis in M. Abramowitz & I. Stegun, 6.1.41). */
function logGamma(x: f32): f32 {
  const n = x + 5;
  const inv: f32 = 1 / n;
  const series = inv * (0.0833333333 - inv * inv * 0.00277777778);
  return (n - 0.5) * log(n) - n + 0.918938533 + series - log((x + 1) * (x + 2) * (x + 3) * (x + 4));
}

/** Angle of (x, y) from the x axis in turns, −½…½; error 4e−7. */
export function atan2Turns(y: f32, x: f32): f32 {
  const ax = abs(x);
  const ay = abs(y);
  const most = max(ax, ay);
  if (most == 0) return 0;
  const t = min(ax, ay) / most;
  const s = t * t;
  let a: f32 =
    t *
    (0.99997726 + s * (-0.33262347 + s * (0.19354346 + s * (-0.11643287 + s * (0.05265332 + s * -0.01172120)))));
  if (ay > ax) a = 1.57079637 - a;
  if (x < 0) a = 3.14159274 - a;
  return (y < 0 ? -a : a) * 0.159154943;
}

/** Elevation of a unit vector, 0 (straight down) to 1 (straight up). */
@inline
export function heightShare(y: f32): f32 {
  return 0.5 + 2 * atan2Turns(y, sqrt<f32>(max<f32>(0, 1 - y * y)));
}
