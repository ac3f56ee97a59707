import { exp, PI } from '../base/maths';
import * as scene from '../base/scene';

/**
 * Air and floor, numbers of 4 bytes: whether there is fog, its colour, extinction per metre, clear distance before the
 * camera, falloff height and base height; whether there is haze, with the same numbers, its anisotropy
 * (Henyey–Greenstein g) and its bounding sphere; whether there is a shadow catcher, its height, strength, colour,
 * radius, reflectance and blur.
 */
const FOG: usize = 0;
const HAZE: usize = 32;
const FLOOR: usize = 80;
/** Offsets shared by fog and haze. */
const COLOUR: usize = 4;
const EXTINCTION: usize = 16;
const START: usize = 20;
const FALLOFF_HEIGHT: usize = 24;
const GROUND: usize = 28;
const ANISOTROPY: usize = 20;
const MIDDLE: usize = 32;
const REACH: usize = 44;

@inline
export function hasFog(): bool {
  return load<f32>(scene.atmosphere, FOG) > 0;
}
@inline
export function hasHaze(): bool {
  return load<f32>(scene.atmosphere, HAZE) > 0;
}
@inline
export function fogColour(k: usize): f32 {
  return load<f32>(scene.atmosphere + FOG + COLOUR + (k << 2));
}
@inline
export function hazeColour(k: usize): f32 {
  return load<f32>(scene.atmosphere + HAZE + COLOUR + (k << 2));
}

/** Optical depth between two heights: σ·d, or σ·d·(e^{−a} − e^{−b})/(b − a) if the density falls off with height. */
function opticalDepth(air: usize, metres: f32, from: f32, to: f32): f32 {
  const thins = load<f32>(air, FALLOFF_HEIGHT);
  const plain = load<f32>(air, EXTINCTION) * metres;
  if (thins <= 0) return plain;
  const ground = load<f32>(air, GROUND);
  const a = (from - ground) / thins;
  const b = (to - ground) / thins;
  const rise = b - a;
  return plain * (abs(rise) < 1e-3 ? exp(-a) : (exp(-a) - exp(-b)) / rise);
}

/** Transmittance of fog over a distance. */
export function fogTransmittance(oy: f32, dy: f32, far: f32, first: bool): f32 {
  const air = scene.atmosphere + FOG;
  const begins: f32 = first ? load<f32>(air, START) : 0;
  return exp(-opticalDepth(air, max<f32>(0, far - begins), oy, oy + dy * far));
}

/** Where a ray enters and leaves the sphere of haze. */
export let enters: f32 = 0;
export let leaves: f32 = 0;

/** False if it misses. */
export function intersectHaze(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, to: f32): bool {
  const air = scene.atmosphere + HAZE;
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

/** Transmittance of haze between where the ray enters it and a distance. */
export function hazeTransmittance(oy: f32, dy: f32, at: f32): f32 {
  return exp(-opticalDepth(scene.atmosphere + HAZE, at - enters, oy + dy * enters, oy + dy * at));
}

/**
 * Transmittance of all air over a distance. A sun and the environment (`far` of Infinity) are defined by what arrives:
 * behind unbounded air nothing would be left.
 */
export function airTransmittance(
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
  if (hasHaze() && intersectHaze(ox, oy, oz, dx, dy, dz, far)) left = hazeTransmittance(oy, dy, leaves);
  if (hasFog()) left *= fogTransmittance(oy, dy, far, first);
  return left;
}

/** Scattering coefficient at a height, per metre. */
export function scattering(height: f32): f32 {
  const air = scene.atmosphere + HAZE;
  const thins = load<f32>(air, FALLOFF_HEIGHT);
  const plain = load<f32>(air, EXTINCTION);
  return thins > 0 ? plain * exp(-(height - load<f32>(air, GROUND)) / thins) : plain;
}

/** Henyey–Greenstein phase function, per steradian (L. Henyey & J. Greenstein, 1941). */
export function phase(cosine: f32): f32 {
  const g = load<f32>(scene.atmosphere + HAZE, ANISOTROPY);
  const k: f32 = 1 + g * g - 2 * g * cosine;
  return (1 - g * g) / (4 * PI * k * sqrt<f32>(k));
}

@inline
export function hasFloor(): bool {
  return load<f32>(scene.atmosphere, FLOOR) > 0;
}
@inline
export function floorHeight(): f32 {
  return load<f32>(scene.atmosphere, FLOOR + 4);
}
@inline
export function floorStrength(): f32 {
  return load<f32>(scene.atmosphere, FLOOR + 8);
}
@inline
export function floorColour(k: usize): f32 {
  return load<f32>(scene.atmosphere + FLOOR + 12 + (k << 2));
}
@inline
export function floorMirror(): f32 {
  return load<f32>(scene.atmosphere, FLOOR + 28);
}
@inline
export function floorSpread(): f32 {
  return load<f32>(scene.atmosphere, FLOOR + 32);
}

/** Visibility of the floor's shadows and reflections at a point: it fades out towards its edge. */
export function floorFade(x: f32, z: f32): f32 {
  const reach = load<f32>(scene.atmosphere, FLOOR + 24);
  const t = min<f32>(1, max<f32>(0, (reach - sqrt<f32>(x * x + z * z)) / (0.6 * reach)));
  return t * t * (3 - 2 * t);
}
