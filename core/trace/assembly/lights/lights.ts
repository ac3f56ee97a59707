import { cosTurns, PI, sinTurns } from '../base/maths';
import * as selection from './light-selection';
import * as glow from './emissive';
import * as scene from '../base/scene';
import * as sky from './environment';

/**
 * Lights and the environment: sampled from a shading point, and evaluated where a ray hits them.
 *
 * A lamp, 24 numbers: its type; radiance, red, green and blue; position, or the direction to it; radius, for an area
 * light its area, or for a sun 1 − cos of half its angle (in single precision the cosine of a small angle is 1); the
 * two half edges of an area light; the direction it faces; for a spot the cosines of half its cone and of half its
 * uniform part; whether the camera sees it; whether it casts shadows.
 */
export const LAMP: usize = 96;
const SUN: i32 = 0;
const AREA: i32 = 1;
const POSITION: usize = 16;
const RADIUS: usize = 28;
const EDGE1: usize = 32;
const EDGE2: usize = 44;
const DIRECTION: usize = 56;
const CONE: usize = 68;
const EVEN: usize = 72;
const VISIBLE: usize = 76;
export const SHADOW: usize = 80;

/** The light sample: direction, distance, radiance, and pdf per steradian; 0 if no ray can hit the light. */
export let lx: f32 = 0;
export let ly: f32 = 0;
export let lz: f32 = 0;
export let far: f32 = 0;
export let lightR: f32 = 0;
export let lightG: f32 = 0;
export let lightB: f32 = 0;
export let pdf: f32 = 0;
export let castsShadow: bool = true;
/** Index of the sampled light: after the lamps the environment, then emissive surfaces. */
export let lightIndex: i32 = 0;

/** Number of lights to select from, the environment and emissive surfaces included. */
@inline
export function strategyCount(): i32 {
  return scene.lampCount + (scene.environment ? 1 : 0) + (scene.emissiveCount > 0 ? 1 : 0);
}

/** Position of the sample unless it is infinitely far; and its instance and triangle, −1 for none. */
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ofCopy: i32 = -1;
export let ofTriangle: i32 = -1;

/** Bytes of a saved sample. */
export const SAMPLE_BYTES: usize = 36;

/** Saves the light sample. */
export function save(at: usize): void {
  store<f32>(at, lx);
  store<f32>(at, ly, 4);
  store<f32>(at, lz, 8);
  store<f32>(at, far, 12);
  store<f32>(at, atX, 16);
  store<f32>(at, atY, 20);
  store<f32>(at, atZ, 24);
  store<i32>(at, ofCopy, 28);
  store<i32>(at, ofTriangle, 32);
}

/** Restores a saved sample: direction, distance and all the rest. */
export function restore(at: usize): void {
  lx = load<f32>(at);
  ly = load<f32>(at, 4);
  lz = load<f32>(at, 8);
  far = load<f32>(at, 12);
  atX = load<f32>(at, 16);
  atY = load<f32>(at, 20);
  atZ = load<f32>(at, 24);
  ofCopy = load<i32>(at, 28);
  ofTriangle = load<i32>(at, 32);
}

/** Prepares light selection at a point; see light-selection.ts. */
export function prepareSelection(px: f32, py: f32, pz: f32): void {
  const n = min(selection.MAX_LIGHTS, strategyCount());
  selection.begin(n);
  if (n < 2) return;
  for (let k = 0; k < n; k++) selection.setImportance(k, importance(k, px, py, pz));
  selection.normalise();
}

/** Estimate of what a light contributes to a point that faces it; 0 only if it contributes nothing. */
function importance(k: i32, px: f32, py: f32, pz: f32): f32 {
  if (k >= scene.lampCount) return scene.environment && k == scene.lampCount ? scene.environmentPower : glow.importance(px, py, pz);
  const at = scene.lamps + <usize>k * LAMP;
  const bright: f32 = 0.2126 * load<f32>(at, 4) + 0.7152 * load<f32>(at, 8) + 0.0722 * load<f32>(at, 12);
  const kind = load<i32>(at);
  if (kind == SUN) return bright;
  const radius = load<f32>(at, RADIUS);
  const x = load<f32>(at, POSITION) - px;
  const y = load<f32>(at, POSITION + 4) - py;
  const z = load<f32>(at, POSITION + 8) - pz;
  const d2 = x * x + y * y + z * z;
  if (kind == AREA) {
    const before = -(x * load<f32>(at, DIRECTION) + y * load<f32>(at, DIRECTION + 4) + z * load<f32>(at, DIRECTION + 8));
    // Near its edge it is seen from the side, and still large.
    return before <= 0 ? 0 : (bright * radius * (before / sqrt<f32>(d2) + 0.05)) / (d2 + radius);
  }
  if (d2 == 0) return 0;
  const inv: f32 = 1 / sqrt<f32>(d2);
  return (bright * spotShare(at, -x * inv, -y * inv, -z * inv)) / max(d2, radius * radius);
}

@inline
function setRadiance(at: usize, by: f32): void {
  lightR = load<f32>(at, 4) * by;
  lightG = load<f32>(at, 8) * by;
  lightB = load<f32>(at, 12) * by;
}

/** Uniform direction within a cone; `m` is 1 − cos of half its angle. */
function sampleCone(wx: f32, wy: f32, wz: f32, m: f32, u: f32, v: f32): void {
  const z: f32 = 1 - u * m;
  const r: f32 = sqrt<f32>(max<f32>(0, u * m * (2 - u * m)));
  const a = r * cosTurns(v);
  const b = r * sinTurns(v);
  // A frame around the direction (T. Duff et al., “Building an Orthonormal Basis, Revisited”, 2017).
  const sign: f32 = wz < 0 ? -1 : 1;
  const p: f32 = -1 / (sign + wz);
  const q = wx * wy * p;
  lx = a * (1 + sign * wx * wx * p) + b * q + z * wx;
  ly = a * sign * q + b * (sign + wy * wy * p) + z * wy;
  lz = -a * sign * wx - b * wy + z * wz;
}

/** Falloff of a spot in a direction (x, y, z) from it, 0…1. */
function spotShare(at: usize, x: f32, y: f32, z: f32): f32 {
  const cone = load<f32>(at, CONE);
  if (cone < -1.5) return 1;
  const c = x * load<f32>(at, DIRECTION) + y * load<f32>(at, DIRECTION + 4) + z * load<f32>(at, DIRECTION + 8);
  const t = min<f32>(1, max<f32>(0, (c - cone) / max<f32>(1e-6, load<f32>(at, EVEN) - cone)));
  return t * t * (3 - 2 * t);
}

/**
 * Samples one light, selected with the probabilities that `prepareSelection` set for this point. False if it
 * contributes nothing.
 */
export function sample(which: f32, px: f32, py: f32, pz: f32, u: f32, v: f32): bool {
  if (strategyCount() == 0) return false;
  const k = selection.select(which);
  const share = selection.probability;
  if (!(share > 0)) return false;
  castsShadow = true;
  lightIndex = k;
  ofCopy = ofTriangle = -1;
  if (k >= scene.lampCount) {
    if (scene.environment && k == scene.lampCount) return sampleEnvironment(share, u, v);
    lightIndex = scene.lampCount + 1;
    return sampleEmissive(share, px, py, pz, selection.remainder, u, v);
  }
  const at = scene.lamps + <usize>k * LAMP;
  const kind = load<i32>(at);
  castsShadow = load<f32>(at, SHADOW) > 0;
  const ax = load<f32>(at, POSITION);
  const ay = load<f32>(at, POSITION + 4);
  const az = load<f32>(at, POSITION + 8);
  const radius = load<f32>(at, RADIUS);
  if (kind == SUN) {
    far = Infinity;
    if (radius == 0) {
      lx = ax;
      ly = ay;
      lz = az;
      pdf = 0;
      setRadiance(at, 1 / share);
      return true;
    }
    sampleCone(ax, ay, az, radius, u, v);
    const wide: f32 = 2 * PI * radius;
    pdf = share / wide;
    setRadiance(at, 1 / share);
    return true;
  }
  if (kind == AREA) {
    const s: f32 = 2 * u - 1;
    const t: f32 = 2 * v - 1;
    atX = ax + s * load<f32>(at, EDGE1) + t * load<f32>(at, EDGE2);
    atY = ay + s * load<f32>(at, EDGE1 + 4) + t * load<f32>(at, EDGE2 + 4);
    atZ = az + s * load<f32>(at, EDGE1 + 8) + t * load<f32>(at, EDGE2 + 8);
    lx = atX - px;
    ly = atY - py;
    lz = atZ - pz;
    const d2 = lx * lx + ly * ly + lz * lz;
    far = sqrt<f32>(d2);
    const inv: f32 = 1 / far;
    lx *= inv;
    ly *= inv;
    lz *= inv;
    const c = -(lx * load<f32>(at, DIRECTION) + ly * load<f32>(at, DIRECTION + 4) + lz * load<f32>(at, DIRECTION + 8));
    if (c <= 0) return false;
    pdf = (share * d2) / (c * radius);
    setRadiance(at, 1 / pdf);
    return true;
  }
  // A sphere light, or a spot, which is a sphere that shines in a cone.
  let x = ax - px;
  let y = ay - py;
  let z = az - pz;
  const d2 = x * x + y * y + z * z;
  const d = sqrt<f32>(d2);
  if (d <= radius || d == 0) return false;
  const inv: f32 = 1 / d;
  x *= inv;
  y *= inv;
  z *= inv;
  const part = spotShare(at, -x, -y, -z);
  if (part == 0) return false;
  if (radius == 0) {
    lx = x;
    ly = y;
    lz = z;
    atX = ax;
    atY = ay;
    atZ = az;
    far = d;
    pdf = 0;
    setRadiance(at, part / (d2 * share));
    return true;
  }
  const m = coneMeasure(radius, d2);
  const wide: f32 = 2 * PI * m;
  sampleCone(x, y, z, m, u, v);
  const b = d * (lx * x + ly * y + lz * z);
  far = b - sqrt<f32>(max<f32>(0, radius * radius - d2 + b * b));
  atX = px + far * lx;
  atY = py + far * ly;
  atZ = pz + far * lz;
  pdf = share / wide;
  // Intensity divided by the visible disc is radiance.
  setRadiance(at, part / (PI * radius * radius * pdf));
  return true;
}

/** 1 − cos of half the cone that a sphere subtends; accurate at any distance. */
@inline
function coneMeasure(radius: f32, d2: f32): f32 {
  const sine2: f32 = (radius * radius) / d2;
  return sine2 / (1 + sqrt<f32>(max<f32>(0, 1 - sine2)));
}

/**
 * What a ray hits of a lamp before `to`, as radiance, distance and `pdf`; false if it hits none. Lamps without shadow
 * or size are never hit.
 *
 * @param since metres that the ray has come straight on since the vertex that its path left last
 */
export function intersect(
  k: i32,
  px: f32,
  py: f32,
  pz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  to: f32,
  since: f32,
  seen: bool,
): bool {
  const at = scene.lamps + <usize>k * LAMP;
  const kind = load<i32>(at);
  if (seen ? load<f32>(at, VISIBLE) == 0 : load<f32>(at, SHADOW) == 0) return false;
  const share = selection.probabilityAtVertex(k);
  const ax = load<f32>(at, POSITION);
  const ay = load<f32>(at, POSITION + 4);
  const az = load<f32>(at, POSITION + 8);
  const radius = load<f32>(at, RADIUS);
  if (kind == SUN) {
    if (radius == 0 || to < Infinity) return false;
    const ex = dx - ax;
    const ey = dy - ay;
    const ez = dz - az;
    // |d − a|² is 2 − 2·cosine, and keeps the precision that a cosine near 1 loses.
    if (ex * ex + ey * ey + ez * ez > 2 * radius) return false;
    const wide: f32 = 2 * PI * radius;
    far = Infinity;
    pdf = share / wide;
    setRadiance(at, 1 / wide);
    return true;
  }
  const x = ax - px;
  const y = ay - py;
  const z = az - pz;
  if (kind == AREA) {
    const wx = load<f32>(at, DIRECTION);
    const wy = load<f32>(at, DIRECTION + 4);
    const wz = load<f32>(at, DIRECTION + 8);
    const c = -(dx * wx + dy * wy + dz * wz);
    if (c <= 1e-6) return false;
    const t = -(x * wx + y * wy + z * wz) / c;
    if (t <= 0 || t >= to) return false;
    const qx = dx * t - x;
    const qy = dy * t - y;
    const qz = dz * t - z;
    if (beyond(at + EDGE1, qx, qy, qz) || beyond(at + EDGE2, qx, qy, qz)) return false;
    far = t;
    pdf = (share * (t + since) * (t + since)) / (c * radius);
    setRadiance(at, 1);
    return true;
  }
  if (radius == 0) return false;
  const d2 = x * x + y * y + z * z;
  const b = dx * x + dy * y + dz * z;
  // Distance at which the ray passes the centre, from the perpendicular component.
  const qx = x - b * dx;
  const qy = y - b * dy;
  const qz = z - b * dz;
  const inside = radius * radius - (qx * qx + qy * qy + qz * qz);
  if (b <= 0 || inside <= 0 || d2 <= radius * radius) return false;
  far = b - sqrt<f32>(inside);
  if (far >= to) return false;
  // As seen from that vertex.
  const vx = x + since * dx;
  const vy = y + since * dy;
  const vz = z + since * dz;
  const v2 = vx * vx + vy * vy + vz * vz;
  const inv: f32 = 1 / sqrt<f32>(v2);
  const part = spotShare(at, -vx * inv, -vy * inv, -vz * inv);
  if (part == 0) return false;
  pdf = share / (2 * PI * coneMeasure(radius, v2));
  setRadiance(at, part / (PI * radius * radius));
  return true;
}

/** Whether a point of an area light lies beyond one of its half edges. */
@inline
function beyond(edge: usize, x: f32, y: f32, z: f32): bool {
  const ex = load<f32>(edge);
  const ey = load<f32>(edge, 4);
  const ez = load<f32>(edge, 8);
  return abs(x * ex + y * ey + z * ez) > ex * ex + ey * ey + ez * ez;
}

/** Pdf of sampling a point of an emissive surface, per steradian, given its material. */
export function emissivePdf(surface: usize, distance: f32, cosine: f32): f32 {
  return glow.solidAnglePdf(surface, distance, cosine) * selection.probabilityAtVertex(scene.lampCount + (scene.environment ? 1 : 0));
}

function sampleEmissive(share: f32, px: f32, py: f32, pz: f32, w: f32, u: f32, v: f32): bool {
  if (!glow.sample(px, py, pz, w, u, v)) return false;
  lx = glow.x;
  ly = glow.y;
  lz = glow.z;
  far = glow.far;
  atX = glow.atX;
  atY = glow.atY;
  atZ = glow.atZ;
  ofCopy = glow.ofCopy;
  ofTriangle = glow.ofTriangle;
  pdf = share * glow.pdf;
  const inv: f32 = 1 / pdf;
  lightR = glow.red * inv;
  lightG = glow.green * inv;
  lightB = glow.blue * inv;
  return true;
}

function sampleEnvironment(share: f32, u: f32, v: f32): bool {
  if (!sky.sample(u, v)) return false;
  lx = sky.x;
  ly = sky.y;
  lz = sky.z;
  far = Infinity;
  pdf = share * sky.pdf;
  const inv: f32 = 1 / pdf;
  lightR = sky.red * inv;
  lightG = sky.green * inv;
  lightB = sky.blue * inv;
  return true;
}

/** Evaluates the environment in a direction: radiance and `pdf`. */
export function evaluateEnvironment(dx: f32, dy: f32, dz: f32): void {
  sky.evaluate(dx, dy, dz);
  pdf = selection.probabilityAtVertex(scene.lampCount) * sky.pdf;
  lightR = sky.red;
  lightG = sky.green;
  lightB = sky.blue;
}
