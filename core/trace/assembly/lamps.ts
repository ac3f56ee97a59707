import { atan2Turns, cosTurns, heightShare, PI, sinTurns } from './maths';
import * as glow from './glow';
import * as scene from './scene';

/**
 * Lights and the sky: taken at random as a place is lit by them, and looked up as a ray meets them.
 *
 * A lamp, 24 numbers: its kind; its light, red, green and blue; its place, or the direction to it; its radius, or for a
 * sun the cosine of half its angle; the two half edges of an area; the way it shines; for a spot the cosines of half
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

/** Says again what was taken. */
export function aim(x: f32, y: f32, z: f32, distance: f32): void {
  lx = x;
  ly = y;
  lz = z;
  far = distance;
}

@inline
function light(at: usize, by: f32): void {
  lightR = load<f32>(at, 4) * by;
  lightG = load<f32>(at, 8) * by;
  lightB = load<f32>(at, 12) * by;
}

/** A direction within a cone about another, evenly: `c` is the cosine of half the cone. */
function within(wx: f32, wy: f32, wz: f32, c: f32, u: f32, v: f32): void {
  const z: f32 = 1 - u * (1 - c);
  const r: f32 = sqrt<f32>(max<f32>(0, 1 - z * z));
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

/** Takes light for a place from one lamp or from the sky, each as often. False where it brings none. */
export function take(which: f32, px: f32, py: f32, pz: f32, u: f32, v: f32): bool {
  const n = kinds();
  if (n == 0) return false;
  const k = min(n - 1, <i32>(which * <f32>n));
  const share: f32 = 1 / <f32>n;
  shadows = true;
  taken = k;
  if (k >= scene.lampCount) {
    if (scene.sky && k == scene.lampCount) return takeSky(share, u, v);
    taken = scene.lampCount + 1;
    return takeGlow(share, px, py, pz, which * <f32>n - <f32>k, u, v);
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
    if (radius >= 1) {
      lx = ax;
      ly = ay;
      lz = az;
      likely = 0;
      light(at, 1 / share);
      return true;
    }
    within(ax, ay, az, radius, u, v);
    const wide: f32 = 2 * PI * (1 - radius);
    likely = share / wide;
    light(at, 1 / share);
    return true;
  }
  if (kind == AREA) {
    const s: f32 = 2 * u - 1;
    const t: f32 = 2 * v - 1;
    lx = ax + s * load<f32>(at, EDGE1) + t * load<f32>(at, EDGE2) - px;
    ly = ay + s * load<f32>(at, EDGE1 + 4) + t * load<f32>(at, EDGE2 + 4) - py;
    lz = az + s * load<f32>(at, EDGE1 + 8) + t * load<f32>(at, EDGE2 + 8) - pz;
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
    far = d;
    likely = 0;
    light(at, part / (d2 * share));
    return true;
  }
  const c = sqrt<f32>(max<f32>(0, 1 - (radius * radius) / d2));
  // Far off a ball is so small that its cosine is 1.
  const wide: f32 = 2 * PI * max<f32>(1 - c, (0.5 * radius * radius) / d2);
  within(x, y, z, c, u, v);
  const b = d * (lx * x + ly * y + lz * z);
  far = b - sqrt<f32>(max<f32>(0, radius * radius - d2 + b * b));
  likely = share / wide;
  // Intensity over the disc that is seen is radiance.
  light(at, part / (PI * radius * radius * likely));
  return true;
}

/**
 * What a ray meets of a lamp before `to`, as light and as `likely`; false where it meets none. Lamps without shadow or
 * size are met by none.
 */
export function met(k: i32, px: f32, py: f32, pz: f32, dx: f32, dy: f32, dz: f32, to: f32, seen: bool): bool {
  const at = scene.lamps + <usize>k * LAMP;
  const kind = load<i32>(at);
  if (seen ? load<f32>(at, SEEN) == 0 : load<f32>(at, SHADOW) == 0) return false;
  const share: f32 = 1 / <f32>kinds();
  const ax = load<f32>(at, AT);
  const ay = load<f32>(at, AT + 4);
  const az = load<f32>(at, AT + 8);
  const radius = load<f32>(at, RADIUS);
  if (kind == SUN) {
    if (radius >= 1 || to < Infinity || dx * ax + dy * ay + dz * az < radius) return false;
    const wide: f32 = 2 * PI * (1 - radius);
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
    likely = (share * t * t) / (c * radius);
    light(at, 1);
    return true;
  }
  if (radius == 0) return false;
  const d2 = x * x + y * y + z * z;
  const b = dx * x + dy * y + dz * z;
  const inside = radius * radius - d2 + b * b;
  if (b <= 0 || inside <= 0 || d2 <= radius * radius || b - sqrt<f32>(inside) >= to) return false;
  const inv: f32 = 1 / sqrt<f32>(d2);
  const part = spotShare(at, -x * inv, -y * inv, -z * inv);
  if (part == 0) return false;
  const c = sqrt<f32>(max<f32>(0, 1 - (radius * radius) / d2));
  likely = share / (2 * PI * max<f32>(1 - c, (0.5 * radius * radius) / d2));
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
  return glow.likelihood(worn, distance, cosine) / <f32>kinds();
}

function takeGlow(share: f32, px: f32, py: f32, pz: f32, w: f32, u: f32, v: f32): bool {
  if (!glow.take(px, py, pz, w, u, v)) return false;
  lx = glow.x;
  ly = glow.y;
  lz = glow.z;
  far = glow.far;
  likely = share * glow.likely;
  const inv: f32 = 1 / likely;
  lightR = glow.red * inv;
  lightG = glow.green * inv;
  lightB = glow.blue * inv;
  return true;
}

/** Number of the entry of a rising list that first passes u; at most `count` − 1. */
function find(list: usize, count: i32, u: f32): i32 {
  let low = 0;
  let high = count - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (load<f32>(list + (<usize>middle << 2)) > u) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Takes a pixel of the sky as often as it is bright, and a place within it. */
function takeSky(share: f32, u: f32, v: f32): bool {
  const w = scene.skyWidth;
  const h = scene.skyHeight;
  const row = find(scene.skyRows, h, u);
  const r0: f32 = row == 0 ? 0 : load<f32>(scene.skyRows + (<usize>(row - 1) << 2));
  const r1 = load<f32>(scene.skyRows + (<usize>row << 2));
  const columns = scene.skyColumns + ((<usize>row * <usize>w) << 2);
  const column = find(columns, w, v);
  const c0: f32 = column == 0 ? 0 : load<f32>(columns + (<usize>(column - 1) << 2));
  const c1 = load<f32>(columns + (<usize>column << 2));
  if (!(r1 > r0) || !(c1 > c0)) return false;
  const y = (<f32>row + (u - r0) / (r1 - r0)) / <f32>h;
  const x = (<f32>column + (v - c0) / (c1 - c0)) / <f32>w;
  // Heights go from straight below, −¼ turn, to straight above.
  const up: f32 = 0.5 * y - 0.25;
  const flat: f32 = cosTurns(up);
  if (flat <= 1e-5) return false;
  const round: f32 = 0.25 - (x - 0.5);
  turned(flat * sinTurns(round), sinTurns(up), flat * cosTurns(round));
  far = Infinity;
  likely = share * (r1 - r0) * (c1 - c0) * <f32>w * <f32>h / (2 * PI * PI * flat);
  between(x, y);
  const inv: f32 = 1 / likely;
  lightR *= inv;
  lightG *= inv;
  lightB *= inv;
  return true;
}

/** The sky at a place of its picture, 0…1 both ways, between the middles of its pixels. */
function between(x: f32, y: f32): void {
  const w = scene.skyWidth;
  const h = scene.skyHeight;
  const px: f32 = x * <f32>w - 0.5;
  const py: f32 = min<f32>(<f32>(h - 1), max<f32>(0, y * <f32>h - 0.5));
  const u: f32 = px - floor<f32>(px);
  const i = <i32>floor<f32>(px);
  const i0 = i < 0 ? i + w : i;
  const i1 = i0 + 1 == w ? 0 : i0 + 1;
  const j0 = min(h - 1, <i32>py);
  const j1 = min(h - 1, j0 + 1);
  const v: f32 = py - <f32>j0;
  const a = scene.sky + <usize>(j0 * w + i0) * 12;
  const b = scene.sky + <usize>(j0 * w + i1) * 12;
  const c = scene.sky + <usize>(j1 * w + i0) * 12;
  const d = scene.sky + <usize>(j1 * w + i1) * 12;
  const wa: f32 = (1 - u) * (1 - v);
  const wb: f32 = u * (1 - v);
  const wc: f32 = (1 - u) * v;
  const wd: f32 = u * v;
  lightR = wa * load<f32>(a) + wb * load<f32>(b) + wc * load<f32>(c) + wd * load<f32>(d);
  lightG = wa * load<f32>(a, 4) + wb * load<f32>(b, 4) + wc * load<f32>(c, 4) + wd * load<f32>(d, 4);
  lightB = wa * load<f32>(a, 8) + wb * load<f32>(b, 8) + wc * load<f32>(c, 8) + wd * load<f32>(d, 8);
}

/** The turn of the sky, nine numbers by rows, stands after the numbers of the camera. */
@inline
function turned(x: f32, y: f32, z: f32): void {
  const m = scene.camera + 128;
  lx = load<f32>(m) * x + load<f32>(m, 4) * y + load<f32>(m, 8) * z;
  ly = load<f32>(m, 12) * x + load<f32>(m, 16) * y + load<f32>(m, 20) * z;
  lz = load<f32>(m, 24) * x + load<f32>(m, 28) * y + load<f32>(m, 32) * z;
}

/** The sky from a direction, as light and as `likely`. */
export function lookAtSky(dx: f32, dy: f32, dz: f32): void {
  const m = scene.camera + 128;
  const x = load<f32>(m) * dx + load<f32>(m, 12) * dy + load<f32>(m, 24) * dz;
  const y = load<f32>(m, 4) * dx + load<f32>(m, 16) * dy + load<f32>(m, 28) * dz;
  const z = load<f32>(m, 8) * dx + load<f32>(m, 20) * dy + load<f32>(m, 32) * dz;
  const w = scene.skyWidth;
  const h = scene.skyHeight;
  const height = heightShare(y);
  const row = min(h - 1, max(0, <i32>(height * <f32>h)));
  let round: f32 = 0.75 - atan2Turns(x, z);
  round -= floor<f32>(round);
  const column = min(w - 1, <i32>(round * <f32>w));
  between(round, height);
  const r0: f32 = row == 0 ? 0 : load<f32>(scene.skyRows + (<usize>(row - 1) << 2));
  const columns = scene.skyColumns + ((<usize>row * <usize>w) << 2);
  const c0: f32 = column == 0 ? 0 : load<f32>(columns + (<usize>(column - 1) << 2));
  const flat = sqrt<f32>(max<f32>(0, 1 - y * y));
  const share: f32 = 1 / <f32>kinds();
  likely =
    flat <= 1e-5
      ? 0
      : (share *
          (load<f32>(scene.skyRows + (<usize>row << 2)) - r0) *
          (load<f32>(columns + (<usize>column << 2)) - c0) *
          <f32>w *
          <f32>h) /
        (2 * PI * PI * flat);
}
