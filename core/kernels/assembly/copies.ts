import { whole } from './common';

// Copies: matrices of f32 ×16 each, column-major, the translation last; weights of f32 each; the two values of a change
// as f64: the first, then the difference.

/** Translations of copies: f32 ×3 each. */
export function centres(matrices: usize, count: u32, out: usize): void {
  for (const end = matrices + (<usize>count << 6); matrices < end; matrices += 64) {
    store<f32>(out, load<f32>(matrices, 48));
    store<f32>(out, load<f32>(matrices, 52), 4);
    store<f32>(out, load<f32>(matrices, 56), 8);
    out += 12;
  }
}

/** Weights by position: from `low` over `span` along an axis 0…2, or 3 for the distance from the origin. */
export function placed(points: usize, count: u32, axis: u32, low: f64, span: f64, out: usize): void {
  for (const end = out + (<usize>count << 2); out < end; out += 4) {
    let at: f64;
    if (axis < 3) at = <f64>load<f32>(points + (axis << 2));
    else {
      const x = <f64>load<f32>(points), y = <f64>load<f32>(points, 4), z = <f64>load<f32>(points, 8);
      at = sqrt<f64>(x * x + y * y + z * z);
    }
    store<f32>(out, <f32>((at - low) / span));
    points += 12;
  }
}

// @ts-ignore: decorator
@inline
function square(m: usize): f32 {
  const x = load<f32>(m), y = load<f32>(m, 4), z = load<f32>(m, 8);
  return x * x + y * y + z * z;
}

/** Translates along the world axes or each copy's own normalised axes; keeps `points` up to date. */
export function shifted(matrices: usize, count: u32, weights: usize, x: f64, y: f64, z: f64, dx: f64, dy: f64, dz: f64, own: bool, points: usize): void {
  for (const end = matrices + (<usize>count << 6); matrices < end; matrices += 64) {
    const w = <f64>load<f32>(weights);
    const a = <f32>(x + w * dx), b = <f32>(y + w * dy), c = <f32>(z + w * dz);
    let at = v128.load(matrices, 48);
    if (own) {
      const la = sqrt<f32>(square(matrices)), lb = sqrt<f32>(square(matrices + 16)), lc = sqrt<f32>(square(matrices + 32));
      at = f32x4.add(at, f32x4.mul(v128.load(matrices), f32x4.splat(la > 0 ? a / la : a)));
      at = f32x4.add(at, f32x4.mul(v128.load(matrices, 16), f32x4.splat(lb > 0 ? b / lb : b)));
      at = f32x4.add(at, f32x4.mul(v128.load(matrices, 32), f32x4.splat(lc > 0 ? c / lc : c)));
    } else at = f32x4.add(at, f32x4(a, b, c, 0));
    v128.store(matrices, at, 48);
    store<f32>(points, f32x4.extract_lane(at, 0));
    store<f32>(points, f32x4.extract_lane(at, 1), 4);
    store<f32>(points, f32x4.extract_lane(at, 2), 8);
    weights += 4;
    points += 12;
  }
}

/** Scales along each copy's own axes. */
export function sized(matrices: usize, count: u32, weights: usize, x: f64, y: f64, z: f64, dx: f64, dy: f64, dz: f64): void {
  for (const end = matrices + (<usize>count << 6); matrices < end; matrices += 64) {
    const w = <f64>load<f32>(weights);
    v128.store(matrices, f32x4.mul(v128.load(matrices), f32x4.splat(<f32>max<f64>(0, x + w * dx))));
    v128.store(matrices, f32x4.mul(v128.load(matrices, 16), f32x4.splat(<f32>max<f64>(0, y + w * dy))), 16);
    v128.store(matrices, f32x4.mul(v128.load(matrices, 32), f32x4.splat(<f32>max<f64>(0, z + w * dz))), 32);
    weights += 4;
  }
}

/** Rotates two columns of each of two copies towards each other: the first towards the second. */
// @ts-ignore: decorator
@inline
function plane(first: usize, second: usize, degrees: v128): void {
  // Sine and cosine by their series within an eighth of a turn, exact at quarters; within 2e−9 elsewhere.
  const whole = f64x2.nearest(f64x2.mul(degrees, f64x2.splat(1 / 90.0)));
  const r = f64x2.mul(f64x2.sub(f64x2.mul(degrees, f64x2.splat(1 / 90.0)), whole), f64x2.splat(Math.PI / 2));
  const q = f64x2.mul(r, r);
  const s = f64x2.mul(r, series(q, series(q, series(q, series(q, f64x2.splat(1 / 362_880.0), -1 / 5040.0), 1 / 120.0), -1 / 6.0), 1));
  const c = series(q, series(q, series(q, series(q, series(q, f64x2.splat(-1 / 3_628_800.0), 1 / 40_320.0), -1 / 720.0), 1 / 24.0), -1 / 2.0), 1);
  const quarters = f64x2.add(whole, f64x2.splat(6755399441055744.0));
  // With masks rather than branches, which would be mispredicted half the time. The sine changes sign in the third and
  // fourth quarter, the cosine in the second and third.
  const odd = i64x2.neg(v128.and(quarters, i64x2.splat(1)));
  const sine = v128.xor(v128.bitselect(c, s, odd), i64x2.shl(v128.and(quarters, i64x2.splat(2)), 62));
  const cosine = v128.xor(v128.bitselect(s, c, odd), i64x2.shl(v128.and(i64x2.add(quarters, i64x2.splat(1)), i64x2.splat(2)), 62));
  const both = v128.shuffle<f32>(f32x4.demote_f64x2_zero(sine), f32x4.demote_f64x2_zero(cosine), 0, 1, 4, 5);
  mix(first, second, v128.shuffle<f32>(both, both, 0, 0, 0, 0), v128.shuffle<f32>(both, both, 2, 2, 2, 2));
  mix(first + 64, second + 64, v128.shuffle<f32>(both, both, 1, 1, 1, 1), v128.shuffle<f32>(both, both, 3, 3, 3, 3));
}

// @ts-ignore: decorator
@inline
function series(q: v128, rest: v128, before: f64): v128 {
  return f64x2.add(f64x2.splat(before), f64x2.mul(q, rest));
}

// @ts-ignore: decorator
@inline
function mix(first: usize, second: usize, sine: v128, cosine: v128): void {
  const x = v128.load(first), y = v128.load(second);
  v128.store(first, f32x4.add(f32x4.mul(cosine, x), f32x4.mul(sine, y)));
  v128.store(second, f32x4.sub(f32x4.mul(cosine, y), f32x4.mul(sine, x)));
}

/** Divides a copy's axes by their lengths, or multiplies them back; true if all lengths are equal already. */
function levelled(m: usize, lengths: usize): bool {
  const la = square(m), lb = square(m + 16), lc = square(m + 32);
  // Scales that differ only by rounding count as equal.
  if (abs<f32>(la - lb) <= <f32>2e-6 * la && abs<f32>(lb - lc) <= <f32>2e-6 * lb) return true;
  const a = sqrt<f32>(la), b = sqrt<f32>(lb), c = sqrt<f32>(lc);
  store<f32>(lengths, a);
  store<f32>(lengths, b, 4);
  store<f32>(lengths, c, 8);
  stretch(m, a > 0 ? <f32>1 / a : 0, b > 0 ? <f32>1 / b : 0, c > 0 ? <f32>1 / c : 0);
  return false;
}

// @ts-ignore: decorator
@inline
function stretch(m: usize, a: f32, b: f32, c: f32): void {
  v128.store(m, f32x4.mul(v128.load(m), f32x4.splat(a)));
  v128.store(m, f32x4.mul(v128.load(m, 16), f32x4.splat(b)), 16);
  v128.store(m, f32x4.mul(v128.load(m, 32), f32x4.splat(c)), 32);
}

/**
 * Rotates copies about their own x, then y, then z, in degrees: each matrix times Rz·Ry·Rx, scales unchanged. Two
 * copies at a time: if the count is odd, one more is read and written. lengths: 32 bytes.
 */
export function turned(matrices: usize, count: u32, weights: usize, x: f64, y: f64, z: f64, dx: f64, dy: f64, dz: f64, lengths: usize): void {
  const aboutX = x != 0 || dx != 0, aboutY = y != 0 || dy != 0, aboutZ = z != 0 || dz != 0;
  for (const end = matrices + (<usize>count << 6); matrices < end; matrices += 128) {
    const w = f64x2.promote_low_f32x4(v128.load64_zero(weights));
    const first = levelled(matrices, lengths), second = levelled(matrices + 64, lengths + 16);
    if (aboutZ) plane(matrices, matrices + 16, f64x2.add(f64x2.splat(z), f64x2.mul(w, f64x2.splat(dz))));
    if (aboutY) plane(matrices + 32, matrices, f64x2.add(f64x2.splat(y), f64x2.mul(w, f64x2.splat(dy))));
    if (aboutX) plane(matrices + 16, matrices + 32, f64x2.add(f64x2.splat(x), f64x2.mul(w, f64x2.splat(dx))));
    if (!first) stretch(matrices, load<f32>(lengths), load<f32>(lengths, 4), load<f32>(lengths, 8));
    if (!second) stretch(matrices + 64, load<f32>(lengths, 16), load<f32>(lengths, 20), load<f32>(lengths, 24));
    weights += 8;
  }
}

/** Colours from a table of 256 triples of f32, by weights within 0…1. */
export function coloured(weights: usize, count: u32, table: usize, out: usize): void {
  for (const end = weights + (<usize>count << 2); weights < end; weights += 4) {
    const w = <f64>load<f32>(weights);
    const at = table + <usize>(w <= 0 ? 0 : w >= 1 ? 255 : whole(Math.floor(255 * w + 0.5))) * 12;
    store<f32>(out, load<f32>(at));
    store<f32>(out, load<f32>(at, 4), 4);
    store<f32>(out, load<f32>(at, 8), 8);
    out += 12;
  }
}
