/** Distance fields, which the host marches: it knows their bounds (core/trace/scene/distance-fields.ts). */

import { allocate } from '../base/per-thread';

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
@external('env', 'evaluateField')
declare function evaluateField(field: i32, x: f32, y: f32, z: f32, far: f32, out: usize): void;

/** Result of the host: normal, ambient occlusion, and the offset for rays that start there. */
const result = allocate(5 * 4);

/** An instance is a distance field if the root of its shape is below −1. */
@inline
export function isField(node: i32): bool {
  return node < -1;
}

@inline
function numberOf(node: i32): i32 {
  return -2 - node;
}

/** Distance along a ray to the form; negative if it is not hit before `to`. */
export function marchForm(
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

export function evaluate(node: i32, x: f32, y: f32, z: f32, far: f32): void {
  evaluateField(numberOf(node), x, y, z, far, result);
}

@inline
export function normalX(): f32 {
  return load<f32>(result);
}
@inline
export function normalY(): f32 {
  return load<f32>(result, 4);
}
@inline
export function normalZ(): f32 {
  return load<f32>(result, 8);
}
@inline
export function occlusion(): f32 {
  return load<f32>(result, 12);
}
@inline
export function offset(): f32 {
  return load<f32>(result, 16);
}
