import * as scene from '../base/scene';

/**
 * The backdrop as radiance: a ramp of 256 colours along a line, or by the distance from a point, of the image. Layout,
 * after the rotation of the environment map: two rows of three numbers that take a pixel (x, y, 1) to its place on the
 * ramp; whether the distance from 0 counts, or the first number alone; then the ramp. After it, for an image over the
 * ramp: the address of its texels (0 for none; three numbers each, rows from the top); width and height (integers); two
 * rows that take a pixel to the image; a factor on its radiance.
 */
const PLACE: usize = 164;
const ROUND: usize = 188;
const RAMP: usize = 192;
const STEPS: i32 = 256;
const PICTURE: usize = RAMP + 256 * 12;

export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;

/** Evaluates the backdrop at a position in pixels. */
export function evaluate(x: f32, y: f32): void {
  if (load<u32>(scene.camera, PICTURE) && evaluatePicture(x, y)) return;
  const at = scene.camera + PLACE;
  const u = load<f32>(at) * x + load<f32>(at, 4) * y + load<f32>(at, 8);
  const v = load<f32>(at, 12) * x + load<f32>(at, 16) * y + load<f32>(at, 20);
  const share: f32 = load<f32>(scene.camera, ROUND) > 0 ? sqrt<f32>(u * u + v * v) : u;
  const step = min(STEPS - 1, max(0, <i32>(share * <f32>STEPS)));
  const ramp = scene.camera + RAMP + <usize>step * 12;
  r = load<f32>(ramp);
  g = load<f32>(ramp, 4);
  b = load<f32>(ramp, 8);
}

/** Bilinear lookup; false outside the image. */
function evaluatePicture(x: f32, y: f32): bool {
  const at = scene.camera + PICTURE;
  const u = load<f32>(at, 12) * x + load<f32>(at, 16) * y + load<f32>(at, 20);
  const v = load<f32>(at, 24) * x + load<f32>(at, 28) * y + load<f32>(at, 32);
  if (!(u >= 0 && u <= 1 && v >= 0 && v <= 1)) return false;
  const w = load<i32>(at, 4);
  const h = load<i32>(at, 8);
  const p = min<f32>(<f32>(w - 1), max<f32>(0, u * <f32>w - 0.5));
  const q = min<f32>(<f32>(h - 1), max<f32>(0, v * <f32>h - 0.5));
  const i = <i32>p;
  const j = <i32>q;
  const right: usize = i < w - 1 ? 12 : 0;
  const down: usize = j < h - 1 ? <usize>w * 12 : 0;
  const a = load<u32>(at) + <usize>(j * w + i) * 12;
  const s = p - <f32>i;
  const t = q - <f32>j;
  const factor = load<f32>(at, 36);
  r = factor * between(a, right, down, s, t);
  g = factor * between(a + 4, right, down, s, t);
  b = factor * between(a + 8, right, down, s, t);
  return true;
}

@inline
function between(a: usize, right: usize, down: usize, s: f32, t: f32): f32 {
  const above = load<f32>(a) + s * (load<f32>(a + right) - load<f32>(a));
  const below = load<f32>(a + down) + s * (load<f32>(a + down + right) - load<f32>(a + down));
  return above + t * (below - above);
}
