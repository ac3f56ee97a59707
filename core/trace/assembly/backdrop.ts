import * as scene from './scene';

/**
 * What is behind everything, as light: a ramp of 256 colours over a line or a distance in the picture. After the turn
 * of the sky stand: for a pixel's x, y and 1 the two numbers of a place, three each, and whether it is its distance
 * from 0 or its first number that counts; then the ramp. After it, of a picture over the ramp: where its light is (0 for
 * none), three numbers a place and rows from the top; its width and height, whole; its two numbers of a
 * place; and a factor on its light.
 */
const PLACE: usize = 164;
const ROUND: usize = 188;
const RAMP: usize = 192;
const STEPS: i32 = 256;
const PICTURE: usize = RAMP + 256 * 12;

export let behindR: f32 = 0;
export let behindG: f32 = 0;
export let behindB: f32 = 0;

/** The backdrop at a place in pixels. */
export function look(x: f32, y: f32): void {
  if (load<u32>(scene.camera, PICTURE) && lookAtPicture(x, y)) return;
  const at = scene.camera + PLACE;
  const u = load<f32>(at) * x + load<f32>(at, 4) * y + load<f32>(at, 8);
  const v = load<f32>(at, 12) * x + load<f32>(at, 16) * y + load<f32>(at, 20);
  const share: f32 = load<f32>(scene.camera, ROUND) > 0 ? sqrt<f32>(u * u + v * v) : u;
  const step = min(STEPS - 1, max(0, <i32>(share * <f32>STEPS)));
  const ramp = scene.camera + RAMP + <usize>step * 12;
  behindR = load<f32>(ramp);
  behindG = load<f32>(ramp, 4);
  behindB = load<f32>(ramp, 8);
}

/** Between the middles of its places; false beside it. */
function lookAtPicture(x: f32, y: f32): bool {
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
  behindR = factor * between(a, right, down, s, t);
  behindG = factor * between(a + 4, right, down, s, t);
  behindB = factor * between(a + 8, right, down, s, t);
  return true;
}

@inline
function between(a: usize, right: usize, down: usize, s: f32, t: f32): f32 {
  const above = load<f32>(a) + s * (load<f32>(a + right) - load<f32>(a));
  const below = load<f32>(a + down) + s * (load<f32>(a + down + right) - load<f32>(a + down));
  return above + t * (below - above);
}
