import * as gathered from './gathered';
import * as guide from './guide';
import * as met from './met';
import * as path from './path';
import * as scene from './scene';

/** Pixels that are added up sample by sample, until they are good. */

/** The error up to which a pixel is good, 0 for none, and samples that it has before that is looked at. */
const ERROR: usize = 104;
const LEAST: usize = 108;

/**
 * A pixel that is added up, numbers of 8 bytes: light of what covers it, how much is covered, the sum of squares of
 * brightness, how many samples they are of, light that covers nothing: of lit air, and of what only adds light, and
 * brightness that was above the limit.
 */
const PIXEL_BYTES: usize = 80;
/**
 * Of what is seen, see guide.ts, numbers of 4 bytes: base colour, normal, metres that light comes, how often something
 * stands there, and how often it is told what.
 */
const FEATURE_BYTES: usize = 36;
/**
 * Numbers of a pixel's passes before those of ribbons and sources of light. Of what is met first: its place, its own
 * light, the copy's colour, base colour, normal, metres from the camera, and how often something was met.
 */
const PASS_NUMBERS: i32 = 17;

/**
 * Adds samples `first` up to, without, `end` to a rectangle of pixels; sums are in the order of the samples, whoever
 * adds them. Pixels that are good already, and whose neighbours are, get no more.
 *
 * @param features where what is seen is added up; 0 for nowhere
 * @param passes where it is added up what there is to tell of what is met first, how often each ribbon and none was met,
 * and light by what it comes from; 0 for nowhere
 * @param look whether it is looked at now which pixels are good
 * @returns how many pixels have got some
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
  gathered.tellApart(passes != 0);
  const sources = min(80, scene.lampCount + 3);
  const passBytes: usize = <usize>(PASS_NUMBERS + scene.ribbonCount + 1 + 3 * sources) << 2;
  const limit = load<f32>(scene.camera, ERROR);
  const looks = look && limit > 0 && first >= load<i32>(scene.camera, LEAST);
  // All are looked at before any of them goes on: which is left to others does not depend on their order.
  if (looks)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = sums + <usize>(y * width + x) * PIXEL_BYTES;
        if (load<f64>(at, 40) == <f64>first && isGood(x, y, width, height, sums, limit)) mark(at);
      }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = sums + <usize>(y * width + x) * PIXEL_BYTES;
      if (isMarked(at)) unmark(at);
      else if (load<f64>(at, 40) == <f64>first) {
        const seen = features ? features + <usize>(y * width + x) * FEATURE_BYTES : 0;
        const told = passes ? passes + <usize>(y * width + x) * passBytes : 0;
        for (let n = first; n < end; n++) {
          sample(x0 + x, y0 + y, n, at, seen);
          if (told) tell(told, sources);
        }
        store<f64>(at, <f64>end, 40);
        worked++;
      }
    }
  return worked;
}

/** A pixel that gets no more for now has its count below nothing. */
@inline
function mark(at: usize): void {
  store<f64>(at, -load<f64>(at, 40), 40);
}
@inline
function unmark(at: usize): void {
  mark(at);
}
@inline
function isMarked(at: usize): bool {
  return load<f64>(at, 40) < 0;
}

/** Whether the error of the mean of a pixel and its neighbours is below a limit, as it is seen: dark parts count more. */
function isGood(x: i32, y: i32, width: i32, height: i32, sums: usize, limit: f32): bool {
  const exposure: f64 = load<f32>(scene.camera, path.EXPOSURE);
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
  // A step of light is seen by how large it is of what is there, and in the dark by itself.
  return error <= <f64>limit * (0.05 + (mean / pixels) * exposure);
}

function sample(x: i32, y: i32, n: i32, at: usize, features: usize): void {
  path.take(x, y, n);
  // What a floor mirrors covers what is behind as far as it is no brighter than white; beyond, it is light over it.
  const most = load<f32>(scene.camera, path.EXPOSURE) * max(gathered.r, max(gathered.g, gathered.b));
  const over: f32 = path.uncovered ? 1 : path.mirrored && most > 1 ? 1 - 1 / most : 0;
  const under: f32 = 1 - over;
  store<f64>(at, load<f64>(at) + under * gathered.r);
  store<f64>(at, load<f64>(at, 8) + under * gathered.g, 8);
  store<f64>(at, load<f64>(at, 16) + under * gathered.b, 16);
  store<f64>(at, load<f64>(at, 48) + over * gathered.r, 48);
  store<f64>(at, load<f64>(at, 56) + over * gathered.g, 56);
  store<f64>(at, load<f64>(at, 64) + over * gathered.b, 64);
  store<f64>(at, load<f64>(at, 24) + path.covered, 24);
  store<f64>(at, load<f64>(at, 72) + gathered.cut, 72);
  const bright: f64 = 0.2126 * <f64>gathered.r + 0.7152 * <f64>gathered.g + 0.0722 * <f64>gathered.b;
  store<f64>(at, load<f64>(at, 32) + bright * bright, 32);
  if (!features || !guide.found) return;
  plus(features + 28, 1);
  if (!guide.told) return;
  plus(features + 32, 1);
  plus(features, guide.r);
  plus(features + 4, guide.g);
  plus(features + 8, guide.b);
  plus(features + 12, guide.x);
  plus(features + 16, guide.y);
  plus(features + 20, guide.z);
  plus(features + 24, guide.far);
}

@inline
function plus(at: usize, x: f32): void {
  store<f32>(at, load<f32>(at) + x);
}

/** Numbers that a copy is told by, each 0…1: see core/trace/copy-colour.ts. */
function tellCopy(at: usize): void {
  let x: u32 = <u32>met.ribbon * 1664525 + 1013904223;
  let y: u32 = <u32>met.copy * 1664525 + 1013904223;
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

/** Adds what there is to tell of the sample that was taken. */
function tell(at: usize, sources: i32): void {
  plus(at + 12, path.ownR);
  plus(at + 16, path.ownG);
  plus(at + 20, path.ownB);
  if (met.found) {
    plus(at, met.atX);
    plus(at + 4, met.atY);
    plus(at + 8, met.atZ);
    if (met.ribbon >= 0) tellCopy(at + 24);
    plus(at + 36, met.r);
    plus(at + 40, met.g);
    plus(at + 44, met.b);
    plus(at + 48, met.x);
    plus(at + 52, met.y);
    plus(at + 56, met.z);
    plus(at + 60, met.far);
    plus(at + 64, 1);
    const ribbon = met.ribbon < 0 ? scene.ribbonCount : met.ribbon;
    plus(at + (<usize>(PASS_NUMBERS + ribbon) << 2), 1);
  }
  let to: usize = at + (<usize>(PASS_NUMBERS + scene.ribbonCount + 1) << 2);
  for (let i = 0; i < sources; i++)
    for (let k: usize = 0; k < 3; k++, to += 4) plus(to, gathered.lightFrom(i, k));
}
