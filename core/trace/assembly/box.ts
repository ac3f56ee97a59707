/**
 * Boxes of what is to stand in a tree, 32 bytes each: lowest x, y, z and which thing it is of, highest x, y, z and a free
 * number.
 */

/** Numbers of things stand among floating-point ones, and count from here: none is too small for those to be reckoned at full speed. */
const NUMBERED: i32 = 0x3f800000;

/** The triangle, or the copy, that a box is of. */
@inline
export function numberOf(box: usize): i32 {
  return load<i32>(box, 12) - NUMBERED;
}
@inline
export function numberThing(box: usize, i: i32): void {
  store<i32>(box, NUMBERED + i, 12);
}

/** Half the surface of a box. */
@inline
export function areaOf(low: v128, high: v128): f32 {
  const d = f32x4.sub(high, low);
  const x = f32x4.extract_lane(d, 0);
  const y = f32x4.extract_lane(d, 1);
  const z = f32x4.extract_lane(d, 2);
  return x < 0 ? 0 : x * y + y * z + z * x;
}
