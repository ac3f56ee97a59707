import * as radiance from './radiance';
import * as features from './features';
import * as firstHit from './first-hit';
import * as camera from './camera';
import * as path from './path';
import * as scene from '../base/scene';

/** Accumulates samples of pixels until their error is small enough. */

/** Error at which a pixel is done, 0 for none, and samples before the first test. */
const ERROR: usize = 104;
const LEAST: usize = 108;

/**
 * Sums of a pixel, numbers of 8 bytes: radiance weighted by coverage, coverage, squared luminance, number of samples,
 * radiance that covers nothing (lit air and additive surfaces), and luminance removed by the firefly clamp.
 */
const PIXEL_BYTES: usize = 80;
/**
 * Sums of denoiser features, see features.ts, numbers of 4 bytes: albedo, normal, path length, number of samples that
 * hit something, and number with valid features.
 */
const FEATURE_BYTES: usize = 36;
/**
 * Pass numbers of a pixel before those of ribbons and light sources. Of the first hit: position, emission, the colour
 * of its copy, albedo, normal, distance from the camera, and the number of hits.
 */
const PASS_NUMBERS: i32 = 17;

/**
 * Adds samples `first` (inclusive) to `end` (exclusive) to a rectangle of pixels; sums are in the order of the samples,
 * whoever adds them. Pixels that are done, with all their neighbours, get no more.
 *
 * @param features where denoiser features are added up; 0 for nowhere
 * @param passes where passes are added up: the first hit, how often each ribbon and none was hit, and radiance by
 * source; 0 for nowhere
 * @param looks whether to test now which pixels are done
 * @returns how many pixels got samples
 */
export function addSamples(
  x0: i32,
  y0: i32,
  width: i32,
  height: i32,
  first: i32,
  end: i32,
  sums: usize,
  features: usize,
  passes: usize,
  look: bool,
): i32 {
  let worked = 0;
  radiance.splitBySource(passes != 0);
  const sources = min(80, scene.lampCount + 3);
  const passBytes: usize = <usize>(PASS_NUMBERS + scene.ribbonCount + 1 + 3 * sources) << 2;
  const limit = load<f32>(scene.camera, ERROR);
  const looks = look && limit > 0 && first >= load<i32>(scene.camera, LEAST);
  // All pixels are tested before any gets samples: the result does not depend on their order.
  if (looks)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = sums + <usize>(y * width + x) * PIXEL_BYTES;
        if (load<f64>(at, 40) == <f64>first && isConverged(x, y, width, height, sums, limit)) park(at);
      }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = sums + <usize>(y * width + x) * PIXEL_BYTES;
      if (isParked(at)) unpark(at);
      else if (load<f64>(at, 40) == <f64>first) {
        const seen = features ? features + <usize>(y * width + x) * FEATURE_BYTES : 0;
        const told = passes ? passes + <usize>(y * width + x) * passBytes : 0;
        for (let n = first; n < end; n++) {
          sample(x0 + x, y0 + y, n, at, seen);
          if (told) addPasses(told, sources);
        }
        store<f64>(at, <f64>end, 40);
        worked++;
      }
    }
  return worked;
}

/** A parked pixel gets no samples for now; its count is stored as a negative number. */
@inline
function park(at: usize): void {
  store<f64>(at, -load<f64>(at, 40), 40);
}
@inline
function unpark(at: usize): void {
  park(at);
}
@inline
function isParked(at: usize): bool {
  return load<f64>(at, 40) < 0;
}

/**
 * Whether the error of the mean over a pixel and its neighbours is below the limit, relative to how bright it appears.
 */
function isConverged(x: i32, y: i32, width: i32, height: i32, sums: usize, limit: f32): bool {
  const exposure: f64 = load<f32>(scene.camera, camera.EXPOSURE);
  let variance: f64 = 0;
  let mean: f64 = 0;
  let pixels: f64 = 0;
  for (let j = max(0, y - 2); j <= min(height - 1, y + 2); j++)
    for (let i = max(0, x - 2); i <= min(width - 1, x + 2); i++) {
      const at = sums + <usize>(j * width + i) * PIXEL_BYTES;
      const n = abs<f64>(load<f64>(at, 40));
      const red = load<f64>(at) + load<f64>(at, 48);
      const green = load<f64>(at, 8) + load<f64>(at, 56);
      const blue = load<f64>(at, 16) + load<f64>(at, 64);
      const m = (0.2126 * red + 0.7152 * green + 0.0722 * blue) / n;
      variance += max<f64>(0, load<f64>(at, 32) / n - m * m) / n;
      mean += m;
      pixels += 1;
    }
  const error = sqrt<f64>(variance / pixels) * exposure;
  // The visible step is relative to the light that is there, and absolute in the dark.
  return error <= <f64>limit * (0.05 + (mean / pixels) * exposure);
}

function sample(x: i32, y: i32, n: i32, at: usize, seen: usize): void {
  path.traceSample(x, y, n);
  // A reflection in the floor covers the background as far as it is no brighter than white; beyond, it is added light.
  const most = load<f32>(scene.camera, camera.EXPOSURE) * max(radiance.r, max(radiance.g, radiance.b));
  const over: f32 = path.uncovered ? 1 : path.floorMirrored && most > 1 ? 1 - 1 / most : 0;
  const under: f32 = 1 - over;
  store<f64>(at, load<f64>(at) + under * radiance.r);
  store<f64>(at, load<f64>(at, 8) + under * radiance.g, 8);
  store<f64>(at, load<f64>(at, 16) + under * radiance.b, 16);
  store<f64>(at, load<f64>(at, 48) + over * radiance.r, 48);
  store<f64>(at, load<f64>(at, 56) + over * radiance.g, 56);
  store<f64>(at, load<f64>(at, 64) + over * radiance.b, 64);
  store<f64>(at, load<f64>(at, 24) + path.coverage, 24);
  store<f64>(at, load<f64>(at, 72) + radiance.clampedOff, 72);
  const bright: f64 = 0.2126 * <f64>radiance.r + 0.7152 * <f64>radiance.g + 0.0722 * <f64>radiance.b;
  store<f64>(at, load<f64>(at, 32) + bright * bright, 32);
  if (!seen || !features.found) return;
  plus(seen + 28, 1);
  if (!features.valid) return;
  plus(seen + 32, 1);
  plus(seen, features.r);
  plus(seen + 4, features.g);
  plus(seen + 8, features.b);
  plus(seen + 12, features.x);
  plus(seen + 16, features.y);
  plus(seen + 20, features.z);
  plus(seen + 24, features.far);
}

@inline
function plus(at: usize, x: f32): void {
  store<f32>(at, load<f32>(at) + x);
}

/** Colour that identifies a copy, each channel 0…1: see core/trace/scene/copy-colour.ts. */
function copyPassValue(at: usize): void {
  let x: u32 = <u32>firstHit.ribbon * 1664525 + 1013904223;
  let y: u32 = <u32>firstHit.copy * 1664525 + 1013904223;
  let z: u32 = 1013904223;
  x += y * z;
  y += z * x;
  z += x * y;
  x ^= x >> 16;
  y ^= y >> 16;
  z ^= z >> 16;
  x += y * z;
  y += z * x;
  z += x * y;
  plus(at, <f32>((x >> 24) + 1) / 256);
  plus(at + 4, <f32>((y >> 24) + 1) / 256);
  plus(at + 8, <f32>((z >> 24) + 1) / 256);
}

/** Adds the passes of the last sample. */
function addPasses(at: usize, sources: i32): void {
  plus(at + 12, path.emissionSeenR);
  plus(at + 16, path.emissionSeenG);
  plus(at + 20, path.emissionSeenB);
  if (firstHit.found) {
    plus(at, firstHit.atX);
    plus(at + 4, firstHit.atY);
    plus(at + 8, firstHit.atZ);
    if (firstHit.ribbon >= 0) copyPassValue(at + 24);
    plus(at + 36, firstHit.r);
    plus(at + 40, firstHit.g);
    plus(at + 44, firstHit.b);
    plus(at + 48, firstHit.x);
    plus(at + 52, firstHit.y);
    plus(at + 56, firstHit.z);
    plus(at + 60, firstHit.far);
    plus(at + 64, 1);
    const ribbon = firstHit.ribbon < 0 ? scene.ribbonCount : firstHit.ribbon;
    plus(at + (<usize>(PASS_NUMBERS + ribbon) << 2), 1);
  }
  let to: usize = at + (<usize>(PASS_NUMBERS + scene.ribbonCount + 1) << 2);
  for (let i = 0; i < sources; i++)
    for (let k: usize = 0; k < 3; k++, to += 4) plus(to, radiance.radianceFrom(i, k));
}
