/** Endless forms, which the host marches: it has their distance bounds (core/trace/marched.ts). */

import { ownRoom } from './own';

// eslint-disable-next-line @typescript-eslint/no-unused-vars
@external('env', 'march')
declare function march(
  field: i32,
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
): f32;
// eslint-disable-next-line @typescript-eslint/no-unused-vars
@external('env', 'lookAt')
declare function lookAt(field: i32, x: f32, y: f32, z: f32, far: f32, out: usize): void;

/** The way a place looks, its depth in a crevice, and how far from it a ray begins. */
const seen = ownRoom(5 * 4);

/** What stands there is such a form when the first node of its shape is below −1. */
@inline
export function isField(node: i32): bool {
  return node < -1;
}

@inline
function numberOf(node: i32): i32 {
  return -2 - node;
}

/** How far a ray goes to the form; below 0 where it does not meet it before `to`. */
export function reach(
  node: i32,
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
): f32 {
  return march(numberOf(node), ox, oy, oz, dx, dy, dz, from, to);
}

export function look(node: i32, x: f32, y: f32, z: f32, far: f32): void {
  lookAt(numberOf(node), x, y, z, far, seen);
}

@inline
export function wayX(): f32 {
  return load<f32>(seen);
}
@inline
export function wayY(): f32 {
  return load<f32>(seen, 4);
}
@inline
export function wayZ(): f32 {
  return load<f32>(seen, 8);
}
@inline
export function crevice(): f32 {
  return load<f32>(seen, 12);
}
@inline
export function begins(): f32 {
  return load<f32>(seen, 16);
}
