import { exp, PI } from './maths';
import * as scene from './scene';

/**
 * What fills the room and what stands under everything, numbers of 4 bytes: whether there is fog, its colour,
 * extinction per metre, metres that are clear before the camera, height over which it thins, and above what; whether
 * there is lit air, and the same of it, how much goes forward, and the ball that it fills; whether there is a floor
 * that only catches shadow, its height, strength, colour and reach, how much it mirrors, and how far that spreads.
 */
const FOG: usize = 0;
const HAZE: usize = 32;
const FLOOR: usize = 80;
/** Numbers of both sorts of air, from their first. */
const COLOUR: usize = 4;
const EXTINCTION: usize = 16;
const BEGINS: usize = 20;
const THINS: usize = 24;
const GROUND: usize = 28;
const FORWARD: usize = 20;
const MIDDLE: usize = 32;
const REACH: usize = 44;

@inline
export function hasFog(): bool {
  return load<f32>(scene.room, FOG) > 0;
}
@inline
export function hasHaze(): bool {
  return load<f32>(scene.room, HAZE) > 0;
}
@inline
export function fogColour(k: usize): f32 {
  return load<f32>(scene.room + FOG + COLOUR + (k << 2));
}
@inline
export function hazeColour(k: usize): f32 {
  return load<f32>(scene.room + HAZE + COLOUR + (k << 2));
}

/** Optical depth over a stretch between two heights: σ·d, or σ·d·(e^{−a} − e^{−b})/(b − a) where it thins with height. */
function depth(air: usize, metres: f32, from: f32, to: f32): f32 {
  const thins = load<f32>(air, THINS);
  const plain = load<f32>(air, EXTINCTION) * metres;
  if (thins <= 0) return plain;
  const ground = load<f32>(air, GROUND);
  const a = (from - ground) / thins;
  const b = (to - ground) / thins;
  const rise = b - a;
  return plain * (abs(rise) < 1e-3 ? exp(-a) : (exp(-a) - exp(-b)) / rise);
}

/** What fog leaves of light that comes so far to where a ray begins. */
export function throughFog(oy: f32, dy: f32, far: f32, first: bool): f32 {
  const air = scene.room + FOG;
  const begins: f32 = first ? load<f32>(air, BEGINS) : 0;
  return exp(-depth(air, max<f32>(0, far - begins), oy, oy + dy * far));
}

/** Where a ray goes into the ball that lit air fills, and where out of it. */
export let enters: f32 = 0;
export let leaves: f32 = 0;

/** False where it does not. */
export function crosses(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, to: f32): bool {
  const air = scene.room + HAZE;
  const x = load<f32>(air, MIDDLE) - ox;
  const y = load<f32>(air, MIDDLE + 4) - oy;
  const z = load<f32>(air, MIDDLE + 8) - oz;
  const reach = load<f32>(air, REACH);
  const nearest = x * dx + y * dy + z * dz;
  const inside = reach * reach - (x * x + y * y + z * z - nearest * nearest);
  if (inside <= 0) return false;
  const half = sqrt<f32>(inside);
  enters = max<f32>(0, nearest - half);
  leaves = min(to, nearest + half);
  return leaves > enters;
}

/** What lit air leaves of light between where a ray enters it and a place of the ray. */
export function throughHaze(oy: f32, dy: f32, at: f32): f32 {
  return exp(-depth(scene.room + HAZE, at - enters, oy + dy * enters, oy + dy * at));
}

/**
 * What all air leaves of light that comes from so far to a place, or is seen so far away. A sun and the sky (`far` of
 * Infinity) are as strong as is said of them where their light arrives: behind air without an end nothing would be left.
 */
export function throughAir(
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  far: f32,
  first: bool,
): f32 {
  if (far == Infinity) return 1;
  let left: f32 = 1;
  if (hasHaze() && crosses(ox, oy, oz, dx, dy, dz, far)) left = throughHaze(oy, dy, leaves);
  if (hasFog()) left *= throughFog(oy, dy, far, first);
  return left;
}

/** Share of light per metre that meets dust at a height. */
export function dust(height: f32): f32 {
  const air = scene.room + HAZE;
  const thins = load<f32>(air, THINS);
  const plain = load<f32>(air, EXTINCTION);
  return thins > 0 ? plain * exp(-(height - load<f32>(air, GROUND)) / thins) : plain;
}

/** Share of the light that dust turns by an angle goes there, per steradian (L. Henyey & J. Greenstein, 1941). */
export function turned(cosine: f32): f32 {
  const g = load<f32>(scene.room + HAZE, FORWARD);
  const k: f32 = 1 + g * g - 2 * g * cosine;
  return (1 - g * g) / (4 * PI * k * sqrt<f32>(k));
}

@inline
export function hasFloor(): bool {
  return load<f32>(scene.room, FLOOR) > 0;
}
@inline
export function floorHeight(): f32 {
  return load<f32>(scene.room, FLOOR + 4);
}
@inline
export function floorStrength(): f32 {
  return load<f32>(scene.room, FLOOR + 8);
}
@inline
export function floorColour(k: usize): f32 {
  return load<f32>(scene.room + FLOOR + 12 + (k << 2));
}
@inline
export function floorMirror(): f32 {
  return load<f32>(scene.room, FLOOR + 28);
}
@inline
export function floorSpread(): f32 {
  return load<f32>(scene.room, FLOOR + 32);
}

/** How much of the floor's shadows and reflections is seen at a place: it fades out before its end. */
export function floorShare(x: f32, z: f32): f32 {
  const reach = load<f32>(scene.room, FLOOR + 24);
  const t = min<f32>(1, max<f32>(0, (reach - sqrt<f32>(x * x + z * z)) / (0.6 * reach)));
  return t * t * (3 - 2 * t);
}
