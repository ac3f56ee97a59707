import { atan2Turns, cosTurns, heightShare, PI, sinTurns } from '../base/maths';
import * as scene from '../base/scene';

/** Importance sampling and evaluation of the environment map. */

/** The sampled direction; radiance of the last lookup, and its pdf per steradian. */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 1;
export let red: f32 = 0;
export let green: f32 = 0;
export let blue: f32 = 0;
export let pdf: f32 = 0;

/** Index of the first entry of a cumulative list above u; at most `count` − 1. */
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

/**
 * Samples the environment in proportion to its luminance: a texel by its share, then a position around its centre by a
 * tent, which is how bilinear lookup weights it. So the pdf is bilinear as well.
 */
export function sample(u: f32, v: f32): bool {
  const w = scene.environmentWidth;
  const h = scene.environmentHeight;
  const row = find(scene.environmentRows, h, u);
  const r0: f32 = row == 0 ? 0 : load<f32>(scene.environmentRows + (<usize>(row - 1) << 2));
  const r1 = load<f32>(scene.environmentRows + (<usize>row << 2));
  const columns = scene.environmentColumns + ((<usize>row * <usize>w) << 2);
  const column = find(columns, w, v);
  const c0: f32 = column == 0 ? 0 : load<f32>(columns + (<usize>(column - 1) << 2));
  const c1 = load<f32>(columns + (<usize>column << 2));
  if (!(r1 > r0) || !(c1 > c0)) return false;
  let y: f32 = <f32>row + 0.5 + tent((u - r0) / (r1 - r0));
  // Outside the outermost rows nothing else is read.
  if (y < 0) y = -y;
  if (y > <f32>h) y = 2 * <f32>h - y;
  y /= <f32>h;
  let x: f32 = (<f32>column + 0.5 + tent((v - c0) / (c1 - c0))) / <f32>w;
  x -= floor<f32>(x);
  // Elevation in turns, from −¼ straight down to ¼ straight up.
  const up: f32 = 0.5 * y - 0.25;
  const flat: f32 = cosTurns(up);
  if (flat <= 1e-5) return false;
  const round: f32 = 0.25 - (x - 0.5);
  rotated(flat * sinTurns(round), sinTurns(up), flat * cosTurns(round));
  readBilinear(x, y);
  pdf = (probability * <f32>w * <f32>h) / (2 * PI * PI * flat);
  return pdf > 0;
}

/** −1…1, distributed as a tent around 0. */
@inline
function tent(u: f32): f32 {
  return u < 0.5 ? sqrt<f32>(2 * u) - 1 : 1 - sqrt<f32>(max<f32>(0, 2 - 2 * u));
}

/** Probability of sampling a texel. */
function pixelProbability(row: i32, column: i32): f32 {
  const rows = scene.environmentRows + (<usize>row << 2);
  const columns = scene.environmentColumns + (<usize>(row * scene.environmentWidth + column) << 2);
  const r0: f32 = row == 0 ? 0 : load<f32>(rows - 4);
  const c0: f32 = column == 0 ? 0 : load<f32>(columns - 4);
  return (load<f32>(rows) - r0) * (load<f32>(columns) - c0);
}

/** Probability density of the position that `readBilinear` has read, relative to uniform texels. */
let probability: f32 = 0;

/** Reads the map bilinearly at a position, 0…1 both ways. */
function readBilinear(x: f32, y: f32): void {
  const w = scene.environmentWidth;
  const h = scene.environmentHeight;
  const px: f32 = x * <f32>w - 0.5;
  const py: f32 = min<f32>(<f32>(h - 1), max<f32>(0, y * <f32>h - 0.5));
  const u: f32 = px - floor<f32>(px);
  const i = <i32>floor<f32>(px);
  const i0 = i < 0 ? i + w : i;
  const i1 = i0 + 1 == w ? 0 : i0 + 1;
  const j0 = min(h - 1, <i32>py);
  const j1 = min(h - 1, j0 + 1);
  const v: f32 = py - <f32>j0;
  const a = scene.environment + <usize>(j0 * w + i0) * 12;
  const b = scene.environment + <usize>(j0 * w + i1) * 12;
  const c = scene.environment + <usize>(j1 * w + i0) * 12;
  const d = scene.environment + <usize>(j1 * w + i1) * 12;
  const wa: f32 = (1 - u) * (1 - v);
  const wb: f32 = u * (1 - v);
  const wc: f32 = (1 - u) * v;
  const wd: f32 = u * v;
  red = wa * load<f32>(a) + wb * load<f32>(b) + wc * load<f32>(c) + wd * load<f32>(d);
  green = wa * load<f32>(a, 4) + wb * load<f32>(b, 4) + wc * load<f32>(c, 4) + wd * load<f32>(d, 4);
  blue = wa * load<f32>(a, 8) + wb * load<f32>(b, 8) + wc * load<f32>(c, 8) + wd * load<f32>(d, 8);
  probability =
    wa * pixelProbability(j0, i0) + wb * pixelProbability(j0, i1) + wc * pixelProbability(j1, i0) + wd * pixelProbability(j1, i1);
}

/** The rotation of the environment, nine numbers by rows, follows the numbers of the camera. */
@inline
function rotated(a: f32, b: f32, c: f32): void {
  const m = scene.camera + 128;
  x = load<f32>(m) * a + load<f32>(m, 4) * b + load<f32>(m, 8) * c;
  y = load<f32>(m, 12) * a + load<f32>(m, 16) * b + load<f32>(m, 20) * c;
  z = load<f32>(m, 24) * a + load<f32>(m, 28) * b + load<f32>(m, 32) * c;
}

/** Radiance from a direction, and its pdf. */
export function evaluate(dx: f32, dy: f32, dz: f32): void {
  const m = scene.camera + 128;
  const x = load<f32>(m) * dx + load<f32>(m, 12) * dy + load<f32>(m, 24) * dz;
  const y = load<f32>(m, 4) * dx + load<f32>(m, 16) * dy + load<f32>(m, 28) * dz;
  const z = load<f32>(m, 8) * dx + load<f32>(m, 20) * dy + load<f32>(m, 32) * dz;
  const w = scene.environmentWidth;
  const h = scene.environmentHeight;
  const height = heightShare(y);
  let round: f32 = 0.75 - atan2Turns(x, z);
  round -= floor<f32>(round);
  readBilinear(round, height);
  const flat = sqrt<f32>(max<f32>(0, 1 - y * y));
  pdf = flat <= 1e-5 ? 0 : (probability * <f32>w * <f32>h) / (2 * PI * PI * flat);
}
