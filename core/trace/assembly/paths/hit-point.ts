import * as hit from '../trees/intersect';
import * as scene from '../base/scene';

/** The position of a hit on its triangle, and its error bound. */

/** The position in world space. */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;

/**
 * Relative error of the position: some fifty roundings of single precision (2⁻²⁴ each). The position itself takes seven
 * at most, the matrix of its instance three more (M. Pharr, W. Jakob & G. Humphreys, “Physically Based Rendering”,
 * 6.8.4 and 6.8.5), and neighbouring triangles are hit with as many again.
 */
const RELATIVE_ERROR: f32 = 0.000003;
/** The largest magnitude that entered the position, in metres. */
let magnitude: f32 = 0;

/** Offset at which a ray starts, so that it does not hit the face it leaves. */
@inline
export function offset(): f32 {
  return RELATIVE_ERROR * magnitude;
}

/**
 * Position on the triangle by barycentric coordinates, as exact as the triangle itself however far the ray has come (C.
 * Wächter & N. Binder, “A Fast and Robust Method for Avoiding Self-Intersection”, Ray Tracing Gems, 2019).
 */
export function locate(copy: usize): void {
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const points: usize = load<u32>(mesh, 12);
  const a: usize = points + <usize>load<u32>(corners) * 12;
  const b: usize = points + <usize>load<u32>(corners, 4) * 12;
  const c: usize = points + <usize>load<u32>(corners, 8) * 12;
  const u = hit.hitU;
  const v = hit.hitV;
  const w: f32 = 1 - u - v;
  x = w * load<f32>(a) + u * load<f32>(b) + v * load<f32>(c);
  y = w * load<f32>(a, 4) + u * load<f32>(b, 4) + v * load<f32>(c, 4);
  z = w * load<f32>(a, 8) + u * load<f32>(b, 8) + v * load<f32>(c, 8);
  const sx = largest(load<f32>(a), load<f32>(b), load<f32>(c));
  const sy = largest(load<f32>(a, 4), load<f32>(b, 4), load<f32>(c, 4));
  const sz = largest(load<f32>(a, 8), load<f32>(b, 8), load<f32>(c, 8));
  magnitude = max(sx, max(sy, sz));
  if (load<i32>(copy, scene.COPY_PLAIN) != 0) return;
  const m = copy + scene.COPY_MATRIX;
  const fx = x;
  const fy = y;
  const fz = z;
  x = row(m, fx, fy, fz, 1);
  y = row(m + 16, fx, fy, fz, 1);
  z = row(m + 32, fx, fy, fz, 1);
  magnitude = max(sums(m, sx, sy, sz), max(sums(m + 16, sx, sy, sz), sums(m + 32, sx, sy, sz)));
}

@inline
function largest(a: f32, b: f32, c: f32): f32 {
  return max(abs(a), max(abs(b), abs(c)));
}
@inline
function sums(row: usize, x: f32, y: f32, z: f32): f32 {
  return abs(load<f32>(row)) * x + abs(load<f32>(row, 4)) * y + abs(load<f32>(row, 8)) * z + abs(load<f32>(row, 12));
}

@inline
function row(m: usize, x: f32, y: f32, z: f32, w: f32): f32 {
  return load<f32>(m) * x + load<f32>(m, 4) * y + load<f32>(m, 8) * z + load<f32>(m, 12) * w;
}
