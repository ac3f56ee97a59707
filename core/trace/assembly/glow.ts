import * as hit from './intersect';
import * as place from './place';
import * as scene from './scene';
import * as s from './surface';

/** Light of surfaces that glow: their triangles are taken as often as they give light, by area and brightness. */

/**
 * The place that was taken: the way to it, how far it is, where it is and of which copy and triangle, how likely it was
 * per steradian, and its light.
 */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 1;
export let far: f32 = 0;
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ofCopy: i32 = -1;
export let ofTriangle: i32 = -1;
export let likely: f32 = 0;
export let red: f32 = 0;
export let green: f32 = 0;
export let blue: f32 = 0;

/** How likely a place is taken per steradian, by what it wears, how far it is and how it faces. */
export function likelihood(worn: usize, distance: f32, cosine: f32): f32 {
  return cosine < 1e-5 ? 0 : (load<f32>(worn, s.SOUGHT) * distance * distance) / (cosine * scene.glowPower);
}

/** About how much light all of it brings to a place. */
export function brings(px: f32, py: f32, pz: f32): f32 {
  const x = scene.glowX - px;
  const y = scene.glowY - py;
  const z = scene.glowZ - pz;
  return (0.25 * scene.glowPower) / max(x * x + y * y + z * z, scene.glowReach2);
}

/** Takes a place at random. False where it gives no light to where one is. */
export function take(px: f32, py: f32, pz: f32, w: f32, u: f32, v: f32): bool {
  let low = 0;
  let high = scene.glowCount - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (load<f32>(scene.glows + <usize>middle * 12, 8) > w) high = middle;
    else low = middle + 1;
  }
  const entry = scene.glows + <usize>low * 12;
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
  // Evenly over the triangle.
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
  hit.meet(far, which, triangle, b1, b2);
  place.wornOnTheWay(px, py, pz, x, y, z);
  hit.restore(t, own, face);
  const worn = place.wornThere();
  likely = likelihood(worn, far, cosine);
  // What is cut away gives none, a veil as much as there is of it: as a ray that meets it finds.
  const there: f32 =
    load<f32>(worn, s.CUT) < load<f32>(worn, s.CUT_LEVEL) || load<f32>(worn, s.COVERS) > 0 ? 0 : load<f32>(worn, s.ALPHA);
  red = there * s.glowOf(worn, 0);
  green = there * s.glowOf(worn, 1);
  blue = there * s.glowOf(worn, 2);
  return likely > 0 && there > 0;
}

let cx: f32 = 0;
let cy: f32 = 0;
let cz: f32 = 0;

/** A corner of a copy's triangle, in the room. */
function corner(copy: usize, point: usize): void {
  const px = load<f32>(point);
  const py = load<f32>(point, 4);
  const pz = load<f32>(point, 8);
  const m = copy + scene.COPY_MATRIX;
  cx = load<f32>(m) * px + load<f32>(m, 4) * py + load<f32>(m, 8) * pz + load<f32>(m, 12);
  cy = load<f32>(m, 16) * px + load<f32>(m, 20) * py + load<f32>(m, 24) * pz + load<f32>(m, 28);
  cz = load<f32>(m, 32) * px + load<f32>(m, 36) * py + load<f32>(m, 40) * pz + load<f32>(m, 44);
}
