import * as scene from './scene';

/**
 * What is behind everything, as light: a ramp of 256 colours over a line or a distance in the picture. After the turn
 * of the sky stand: for a pixel's x, y and 1 the two numbers of a place, three each, and whether it is its distance
 * from 0 or its first number that counts; then the ramp.
 */
const PLACE: usize = 164;
const ROUND: usize = 188;
const RAMP: usize = 192;
const STEPS: i32 = 256;

export let behindR: f32 = 0;
export let behindG: f32 = 0;
export let behindB: f32 = 0;

/** The backdrop at a place in pixels. */
export function look(x: f32, y: f32): void {
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
