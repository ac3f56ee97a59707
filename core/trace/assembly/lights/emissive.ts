import * as hit from '../trees/intersect';
import { there as surfaceOnShadowRay } from '../paths/hit-surface';
import * as point from '../paths/shading-point';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';

/** Light sampling of emissive surfaces: triangles are selected in proportion to area times luminance. */

/** The sample: direction, distance, position, instance and triangle, pdf per steradian, and radiance. */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 1;
export let far: f32 = 0;
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ofCopy: i32 = -1;
export let ofTriangle: i32 = -1;
export let pdf: f32 = 0;
export let red: f32 = 0;
export let green: f32 = 0;
export let blue: f32 = 0;

/** Pdf per steradian of sampling a point, given its material, distance and cosine. */
export function solidAnglePdf(surface: usize, distance: f32, cosine: f32): f32 {
  return cosine < 1e-5 ? 0 : (load<f32>(surface, s.IN_LIGHT_LIST) * distance * distance) / (cosine * scene.emissivePower);
}

/** Estimate of what all emissive triangles contribute to a point. */
export function importance(px: f32, py: f32, pz: f32): f32 {
  const x = scene.emissiveX - px;
  const y = scene.emissiveY - py;
  const z = scene.emissiveZ - pz;
  return (0.25 * scene.emissivePower) / max(x * x + y * y + z * z, scene.emissiveRadius2);
}

/** Samples a point. False if it sends no light to the shading point. */
export function sample(px: f32, py: f32, pz: f32, w: f32, u: f32, v: f32): bool {
  let low = 0;
  let high = scene.emissiveCount - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (load<f32>(scene.emissiveTriangles + <usize>middle * 12, 8) > w) high = middle;
    else low = middle + 1;
  }
  const entry = scene.emissiveTriangles + <usize>low * 12;
  const which = load<i32>(entry);
  const triangle = load<i32>(entry, 4);
  const copy = scene.copies + <usize>which * scene.COPY;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>triangle * 12;
  const points: usize = load<u32>(mesh, 12);
  corner(copy, points + <usize>load<u32>(corners) * 12);
  const ax = cx;
  const ay = cy;
  const az = cz;
  corner(copy, points + <usize>load<u32>(corners, 4) * 12);
  const e1x = cx - ax;
  const e1y = cy - ay;
  const e1z = cz - az;
  corner(copy, points + <usize>load<u32>(corners, 8) * 12);
  const e2x = cx - ax;
  const e2y = cy - ay;
  const e2z = cz - az;
  // Uniform over the triangle.
  const root = sqrt<f32>(u);
  const b1: f32 = root * (1 - v);
  const b2 = root * v;
  atX = ax + b1 * e1x + b2 * e2x;
  atY = ay + b1 * e1y + b2 * e2y;
  atZ = az + b1 * e1z + b2 * e2z;
  ofCopy = which;
  ofTriangle = triangle;
  x = atX - px;
  y = atY - py;
  z = atZ - pz;
  const d2 = x * x + y * y + z * z;
  if (!(d2 > 0)) return false;
  far = sqrt<f32>(d2);
  const inv: f32 = 1 / far;
  x *= inv;
  y *= inv;
  z *= inv;
  const nx = e1y * e2z - e1z * e2y;
  const ny = e1z * e2x - e1x * e2z;
  const nz = e1x * e2y - e1y * e2x;
  const cosine = abs(x * nx + y * ny + z * nz) / sqrt<f32>(nx * nx + ny * ny + nz * nz);
  if (!(cosine > 1e-5)) return false;
  const t = hit.hitT;
  const own = hit.hitCopy;
  const face = hit.hitTriangle;
  hit.setHit(far, which, triangle, b1, b2);
  point.setUpShadowHit(px, py, pz, x, y, z);
  hit.restore(t, own, face);
  const surface = surfaceOnShadowRay;
  pdf = solidAnglePdf(surface, far, cosine);
  // Cut-away parts emit nothing and a partly opaque surface its share, just as for a ray that hits it.
  const there: f32 =
    load<f32>(surface, s.CUT) < load<f32>(surface, s.CUT_LEVEL) || load<f32>(surface, s.HOLDOUT) > 0 ? 0 : load<f32>(surface, s.ALPHA);
  red = there * s.emissionOf(surface, 0);
  green = there * s.emissionOf(surface, 1);
  blue = there * s.emissionOf(surface, 2);
  return pdf > 0 && there > 0;
}

let cx: f32 = 0;
let cy: f32 = 0;
let cz: f32 = 0;

/** A corner of a triangle of an instance, in world space. */
function corner(copy: usize, point: usize): void {
  const px = load<f32>(point);
  const py = load<f32>(point, 4);
  const pz = load<f32>(point, 8);
  const m = copy + scene.COPY_MATRIX;
  cx = load<f32>(m) * px + load<f32>(m, 4) * py + load<f32>(m, 8) * pz + load<f32>(m, 12);
  cy = load<f32>(m, 16) * px + load<f32>(m, 20) * py + load<f32>(m, 24) * pz + load<f32>(m, 28);
  cz = load<f32>(m, 32) * px + load<f32>(m, 36) * py + load<f32>(m, 40) * pz + load<f32>(m, 44);
}
