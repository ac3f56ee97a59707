/**
 * Boxes of what a tree is built over, 32 bytes each: lowest x, y, z and the index of the primitive, highest x, y, z and
 * a spare number.
 */

/**
 * Indices are stored among floats and count from here: as floats they are never denormal, which would make arithmetic
 * slow.
 */
const NUMBERED: i32 = 0x3f800000;

/** The triangle or the instance that a box belongs to. */
@inline
export function numberOf(box: usize): i32 {
  return load<i32>(box, 12) - NUMBERED;
}
@inline
export function numberThing(box: usize, i: i32): void {
  store<i32>(box, NUMBERED + i, 12);
}

/** Half the surface area of a box. */
@inline
export function areaOf(low: v128, high: v128): f32 {
  const d = f32x4.sub(high, low);
  const x = f32x4.extract_lane(d, 0);
  const y = f32x4.extract_lane(d, 1);
  const z = f32x4.extract_lane(d, 2);
  return x < 0 ? 0 : x * y + y * z + z * x;
}
