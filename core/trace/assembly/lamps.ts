import { cosTurns, PI, sinTurns } from './maths';
import * as choice from './choice';
import * as glow from './glow';
import * as scene from './scene';
import * as sky from './sky';

/**
 * Lights and the sky: taken at random as a place is lit by them, and looked up as a ray meets them.
 *
 * A lamp, 24 numbers: its kind; its light, red, green and blue; its place, or the direction to it; its radius, for an area
 * its size, or for a sun 1 less the cosine of half its angle (in single precision the cosine of a small one is 1); the two half edges of an area; the way it shines; for a spot the cosines of half
 * its cone and of half of what of it is even; whether the camera sees it; whether it throws shadows.
 */
export const LAMP: usize = 96;
const SUN: i32 = 0;
const AREA: i32 = 1;
const AT: usize = 16;
const RADIUS: usize = 28;
const EDGE1: usize = 32;
const EDGE2: usize = 44;
const WAY: usize = 56;
const CONE: usize = 68;
const EVEN: usize = 72;
const SEEN: usize = 76;
export const SHADOW: usize = 80;

/**
 * The light that was taken: the way to it, how far it is, what it brings, and how likely it was per steradian; 0 where
 * no ray meets it by chance.
 */
export let lx: f32 = 0;
export let ly: f32 = 0;
export let lz: f32 = 0;
export let far: f32 = 0;
export let lightR: f32 = 0;
export let lightG: f32 = 0;
export let lightB: f32 = 0;
export let likely: f32 = 0;
export let shadows: bool = true;
/** Which it was, by its number: after all lamps the sky, then what glows. */
export let taken: i32 = 0;

/** How many there are to be taken, the sky and all that glows among them. */
@inline
export function kinds(): i32 {
  return scene.lampCount + (scene.sky ? 1 : 0) + (scene.glowCount > 0 ? 1 : 0);
}

/** The place of the light that was taken, where it is not endlessly far; and the copy and triangle it is of, −1 for none. */
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ofCopy: i32 = -1;
export let ofTriangle: i32 = -1;

/** Bytes of what was taken, as it is kept. */
export const TAKEN: usize = 36;

/** Keeps what was taken, to be said again. */
export function keep(at: usize): void {
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

/** Says again what was taken. */
export function aim(at: usize): void {
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

/** Weighs how likely each light is taken at a place; see choice.ts. */
export function weigh(px: f32, py: f32, pz: f32): void {
  const n = min(choice.MOST, kinds());
  choice.count(n);
  if (n < 2) return;
  for (let k = 0; k < n; k++) choice.put(k, brings(k, px, py, pz));
  choice.settle();
}

/** About how much light something brings to a place that faces it; 0 only where it brings none. */
function brings(k: i32, px: f32, py: f32, pz: f32): f32 {
  if (k >= scene.lampCount) return scene.sky && k == scene.lampCount ? scene.skyPower : glow.brings(px, py, pz);
  const at = scene.lamps + <usize>k * LAMP;
  const bright: f32 = 0.2126 * load<f32>(at, 4) + 0.7152 * load<f32>(at, 8) + 0.0722 * load<f32>(at, 12);
  const kind = load<i32>(at);
  if (kind == SUN) return bright;
  const radius = load<f32>(at, RADIUS);
  const x = load<f32>(at, AT) - px;
  const y = load<f32>(at, AT + 4) - py;
  const z = load<f32>(at, AT + 8) - pz;
  const d2 = x * x + y * y + z * z;
  if (kind == AREA) {
    const before = -(x * load<f32>(at, WAY) + y * load<f32>(at, WAY + 4) + z * load<f32>(at, WAY + 8));
    // Near its edge it is seen from the side, and still large.
    return before <= 0 ? 0 : (bright * radius * (before / sqrt<f32>(d2) + 0.05)) / (d2 + radius);
  }
  if (d2 == 0) return 0;
  const inv: f32 = 1 / sqrt<f32>(d2);
  return (bright * spotShare(at, -x * inv, -y * inv, -z * inv)) / max(d2, radius * radius);
}

@inline
function light(at: usize, by: f32): void {
  lightR = load<f32>(at, 4) * by;
  lightG = load<f32>(at, 8) * by;
  lightB = load<f32>(at, 12) * by;
}

/** A direction within a cone about another, evenly: `m` is 1 less the cosine of half the cone. */
function within(wx: f32, wy: f32, wz: f32, m: f32, u: f32, v: f32): void {
  const z: f32 = 1 - u * m;
  const r: f32 = sqrt<f32>(max<f32>(0, u * m * (2 - u * m)));
  const a = r * cosTurns(v);
  const b = r * sinTurns(v);
  // A frame about the direction (T. Duff et al., “Building an Orthonormal Basis, Revisited”, 2017).
  const sign: f32 = wz < 0 ? -1 : 1;
  const p: f32 = -1 / (sign + wz);
  const q = wx * wy * p;
  lx = a * (1 + sign * wx * wx * p) + b * q + z * wx;
  ly = a * sign * q + b * (sign + wy * wy * p) + z * wy;
  lz = -a * sign * wx - b * wy + z * wz;
}

/** Share of a spot's light that goes a way: (x, y, z) is from the spot. */
function spotShare(at: usize, x: f32, y: f32, z: f32): f32 {
  const cone = load<f32>(at, CONE);
  if (cone < -1.5) return 1;
  const c = x * load<f32>(at, WAY) + y * load<f32>(at, WAY + 4) + z * load<f32>(at, WAY + 8);
  const t = min<f32>(1, max<f32>(0, (c - cone) / max<f32>(1e-6, load<f32>(at, EVEN) - cone)));
  return t * t * (3 - 2 * t);
}

/** Takes light for a place from one lamp, the sky or what glows, as often as `weigh` has said of this place. False where it brings none. */
export function take(which: f32, px: f32, py: f32, pz: f32, u: f32, v: f32): bool {
  if (kinds() == 0) return false;
  const k = choice.take(which);
  const share = choice.share;
  if (!(share > 0)) return false;
  shadows = true;
  taken = k;
  ofCopy = ofTriangle = -1;
  if (k >= scene.lampCount) {
    if (scene.sky && k == scene.lampCount) return takeSky(share, u, v);
    taken = scene.lampCount + 1;
    return takeGlow(share, px, py, pz, choice.rest, u, v);
  }
  const at = scene.lamps + <usize>k * LAMP;
  const kind = load<i32>(at);
  shadows = load<f32>(at, SHADOW) > 0;
  const ax = load<f32>(at, AT);
  const ay = load<f32>(at, AT + 4);
  const az = load<f32>(at, AT + 8);
  const radius = load<f32>(at, RADIUS);
  if (kind == SUN) {
    far = Infinity;
    if (radius == 0) {
      lx = ax;
      ly = ay;
      lz = az;
      likely = 0;
      light(at, 1 / share);
      return true;
    }
    within(ax, ay, az, radius, u, v);
    const wide: f32 = 2 * PI * radius;
    likely = share / wide;
    light(at, 1 / share);
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
    const c = -(lx * load<f32>(at, WAY) + ly * load<f32>(at, WAY + 4) + lz * load<f32>(at, WAY + 8));
    if (c <= 0) return false;
    likely = (share * d2) / (c * radius);
    light(at, 1 / likely);
    return true;
  }
  // A ball, or a spot, which is a ball whose light goes one way.
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
    likely = 0;
    light(at, part / (d2 * share));
    return true;
  }
  const m = coneOf(radius, d2);
  const wide: f32 = 2 * PI * m;
  within(x, y, z, m, u, v);
  const b = d * (lx * x + ly * y + lz * z);
  far = b - sqrt<f32>(max<f32>(0, radius * radius - d2 + b * b));
  atX = px + far * lx;
  atY = py + far * ly;
  atZ = pz + far * lz;
  likely = share / wide;
  // Intensity over the disc that is seen is radiance.
  light(at, part / (PI * radius * radius * likely));
  return true;
}

/** 1 less the cosine of half the cone in which a ball is seen; it is told apart from nothing however far the ball is. */
@inline
function coneOf(radius: f32, d2: f32): f32 {
  const sine2: f32 = (radius * radius) / d2;
  return sine2 / (1 + sqrt<f32>(max<f32>(0, 1 - sine2)));
}

/**
 * What a ray meets of a lamp before `to`, as light, as `far` and as `likely`; false where it meets none. Lamps without
 * shadow or size are met by none.
 *
 * @param since metres that the ray has come straight on since the place that its path was sent on from
 */
export function met(
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
  if (seen ? load<f32>(at, SEEN) == 0 : load<f32>(at, SHADOW) == 0) return false;
  const share = choice.ofPath(k);
  const ax = load<f32>(at, AT);
  const ay = load<f32>(at, AT + 4);
  const az = load<f32>(at, AT + 8);
  const radius = load<f32>(at, RADIUS);
  if (kind == SUN) {
    if (radius == 0 || to < Infinity) return false;
    const ex = dx - ax;
    const ey = dy - ay;
    const ez = dz - az;
    // |d − a|² is 2 − 2·cosine, and keeps what a cosine near 1 loses.
    if (ex * ex + ey * ey + ez * ez > 2 * radius) return false;
    const wide: f32 = 2 * PI * radius;
    far = Infinity;
    likely = share / wide;
    light(at, 1 / wide);
    return true;
  }
  const x = ax - px;
  const y = ay - py;
  const z = az - pz;
  if (kind == AREA) {
    const wx = load<f32>(at, WAY);
    const wy = load<f32>(at, WAY + 4);
    const wz = load<f32>(at, WAY + 8);
    const c = -(dx * wx + dy * wy + dz * wz);
    if (c <= 1e-6) return false;
    const t = -(x * wx + y * wy + z * wz) / c;
    if (t <= 0 || t >= to) return false;
    const qx = dx * t - x;
    const qy = dy * t - y;
    const qz = dz * t - z;
    if (beyond(at + EDGE1, qx, qy, qz) || beyond(at + EDGE2, qx, qy, qz)) return false;
    far = t;
    likely = (share * (t + since) * (t + since)) / (c * radius);
    light(at, 1);
    return true;
  }
  if (radius == 0) return false;
  const d2 = x * x + y * y + z * z;
  const b = dx * x + dy * y + dz * z;
  // How far the ray passes by the middle, by what is square to it.
  const qx = x - b * dx;
  const qy = y - b * dy;
  const qz = z - b * dz;
  const inside = radius * radius - (qx * qx + qy * qy + qz * qz);
  if (b <= 0 || inside <= 0 || d2 <= radius * radius) return false;
  far = b - sqrt<f32>(inside);
  if (far >= to) return false;
  // As it was seen from there.
  const vx = x + since * dx;
  const vy = y + since * dy;
  const vz = z + since * dz;
  const v2 = vx * vx + vy * vy + vz * vz;
  const inv: f32 = 1 / sqrt<f32>(v2);
  const part = spotShare(at, -vx * inv, -vy * inv, -vz * inv);
  if (part == 0) return false;
  likely = share / (2 * PI * coneOf(radius, v2));
  light(at, part / (PI * radius * radius));
  return true;
}

/** Whether a place of an area lies beyond one of its half edges. */
@inline
function beyond(edge: usize, x: f32, y: f32, z: f32): bool {
  const ex = load<f32>(edge);
  const ey = load<f32>(edge, 4);
  const ez = load<f32>(edge, 8);
  return abs(x * ex + y * ey + z * ez) > ex * ex + ey * ey + ez * ez;
}

/** How likely a place of something that glows is taken, per steradian, by what it wears. */
export function likelyGlow(worn: usize, distance: f32, cosine: f32): f32 {
  return glow.likelihood(worn, distance, cosine) * choice.ofPath(scene.lampCount + (scene.sky ? 1 : 0));
}

function takeGlow(share: f32, px: f32, py: f32, pz: f32, w: f32, u: f32, v: f32): bool {
  if (!glow.take(px, py, pz, w, u, v)) return false;
  lx = glow.x;
  ly = glow.y;
  lz = glow.z;
  far = glow.far;
  atX = glow.atX;
  atY = glow.atY;
  atZ = glow.atZ;
  ofCopy = glow.ofCopy;
  ofTriangle = glow.ofTriangle;
  likely = share * glow.likely;
  const inv: f32 = 1 / likely;
  lightR = glow.red * inv;
  lightG = glow.green * inv;
  lightB = glow.blue * inv;
  return true;
}

function takeSky(share: f32, u: f32, v: f32): bool {
  if (!sky.take(u, v)) return false;
  lx = sky.x;
  ly = sky.y;
  lz = sky.z;
  far = Infinity;
  likely = share * sky.likely;
  const inv: f32 = 1 / likely;
  lightR = sky.red * inv;
  lightG = sky.green * inv;
  lightB = sky.blue * inv;
  return true;
}

/** The sky from a direction, as light and as `likely`. */
export function lookAtSky(dx: f32, dy: f32, dz: f32): void {
  sky.look(dx, dy, dz);
  likely = choice.ofPath(scene.lampCount) * sky.likely;
  lightR = sky.red;
  lightG = sky.green;
  lightB = sky.blue;
}
