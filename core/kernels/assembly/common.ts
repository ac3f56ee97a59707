// Helpers that several kernels share.

// @ts-ignore: decorator
@inline
export function lerp4(t: v128, a: v128, b: v128): v128 {
  return f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)));
}

/** The quintic fade of four values. */
// @ts-ignore: decorator
@inline
export function fade(x: v128): v128 {
  const p = f32x4.add(f32x4.mul(x, f32x4.sub(f32x4.mul(x, f32x4.splat(6)), f32x4.splat(15))), f32x4.splat(10));
  return f32x4.mul(f32x4.mul(f32x4.mul(x, x), x), p);
}

/**
 * A whole number in a double as an integer, without the checks of a conversion: its low bits after adding 1.5 · 2⁵².
 */
// @ts-ignore: decorator
@inline
export function whole(x: f64): i32 {
  return <i32>reinterpret<i64>(x + 6755399441055744.0);
}

// @ts-ignore: decorator
@inline
export function least(v: v128): f32 {
  const half = f32x4.pmin(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  return f32x4.extract_lane(f32x4.pmin(half, v128.shuffle<f32>(half, half, 1, 0, 3, 2)), 0);
}

/** Sums of the first three lanes of each of four vectors. */
// @ts-ignore: decorator
@inline
export function four(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5), cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const xs = v128.shuffle<f32>(ab, cd, 0, 1, 4, 5), ys = v128.shuffle<f32>(ab, cd, 2, 3, 6, 7);
  const zs = v128.shuffle<f32>(v128.shuffle<f32>(a, b, 2, 6, 2, 6), v128.shuffle<f32>(c, d, 2, 6, 2, 6), 0, 1, 4, 5);
  return f32x4.add(f32x4.add(xs, ys), zs);
}
