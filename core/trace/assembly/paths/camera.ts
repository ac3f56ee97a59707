import { cosTurns, sinTurns } from '../base/maths';
import { next } from '../base/sampler';
import * as scene from '../base/scene';

/**
 * The camera, numbers of 4 bytes: position; right, up and forward vectors; the pixel in the middle of its view; width
 * of a pixel in metres, a metre ahead, or anywhere if rays are parallel; whether they are; lens radius; focus distance
 * in metres; number of aperture blades; diffuse bounces; the firefly clamp, from the second vertex on; whether the
 * environment is visible behind everything; the sampler seed; exposure; glossy bounces; transmission bounces; the
 * wanted error and the least samples for it; bounces up to which haze scatters light.
 */
const RIGHT: usize = 12;
const UP: usize = 24;
const AHEAD: usize = 36;
const MIDDLE: usize = 48;
const PIXEL: usize = 56;
const PARALLEL: usize = 60;
const LENS: usize = 64;
const FOCUS: usize = 68;
const BLADES: usize = 72;
export const DIFFUSE_BOUNCES: usize = 76;
export const FIREFLY_CLAMP: usize = 80;
export const ENVIRONMENT_VISIBLE: usize = 84;
export const SEED: usize = 88;
export const EXPOSURE: usize = 92;
export const GLOSSY_BOUNCES: usize = 96;
export const TRANSMISSION_BOUNCES: usize = 100;
export const AIR: usize = 112;

/** The generated ray: origin and direction, a unit vector. */
export let ox: f32 = 0;
export let oy: f32 = 0;
export let oz: f32 = 0;
export let dx: f32 = 0;
export let dy: f32 = 0;
export let dz: f32 = 1;

/** Generates the ray through a point of a pixel and a point of the lens. */
export function generateRay(x: f32, y: f32): void {
  const c = scene.camera;
  const k = load<f32>(c, PIXEL);
  const a = (x + next() - load<f32>(c, MIDDLE)) * k;
  const e = (load<f32>(c, MIDDLE + 4) - y - next()) * k;
  const parallel = load<f32>(c, PARALLEL) > 0;
  let ax = a * load<f32>(c, RIGHT) + e * load<f32>(c, UP);
  let ay = a * load<f32>(c, RIGHT + 4) + e * load<f32>(c, UP + 4);
  let az = a * load<f32>(c, RIGHT + 8) + e * load<f32>(c, UP + 8);
  ox = load<f32>(c);
  oy = load<f32>(c, 4);
  oz = load<f32>(c, 8);
  if (parallel) {
    ox += ax;
    oy += ay;
    oz += az;
    ax = ay = az = 0;
  }
  dx = ax + load<f32>(c, AHEAD);
  dy = ay + load<f32>(c, AHEAD + 4);
  dz = az + load<f32>(c, AHEAD + 8);
  const lens = load<f32>(c, LENS);
  const u = next();
  const v = next();
  if (lens > 0) {
    const focus = load<f32>(c, FOCUS);
    const radius = lens * sqrt<f32>(u) * apertureRadius(v, load<f32>(c, BLADES));
    const p = radius * cosTurns(v);
    const q = radius * sinTurns(v);
    const mx = p * load<f32>(c, RIGHT) + q * load<f32>(c, UP);
    const my = p * load<f32>(c, RIGHT + 4) + q * load<f32>(c, UP + 4);
    const mz = p * load<f32>(c, RIGHT + 8) + q * load<f32>(c, UP + 8);
    ox += mx;
    oy += my;
    oz += mz;
    dx -= mx / focus;
    dy -= my / focus;
    dz -= mz / focus;
  }
  const inv: f32 = 1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
  dx *= inv;
  dy *= inv;
  dz *= inv;
}

/** Width in metres that a pixel covers at a distance. */
export function pixelSize(far: f32): f32 {
  const c = scene.camera;
  return load<f32>(c, PIXEL) * (load<f32>(c, PARALLEL) > 0 ? 1 : max<f32>(far, 1e-4));
}

/** Distance from the camera in metres. */
export function distanceTo(x: f32, y: f32, z: f32): f32 {
  const c = scene.camera;
  const dx = x - load<f32>(c);
  const dy = y - load<f32>(c, 4);
  const dz = z - load<f32>(c, 8);
  return sqrt<f32>(dx * dx + dy * dy + dz * dz);
}

/** Distance from the middle of the aperture to its rim, in a direction given in turns. */
function apertureRadius(turn: f32, blades: f32): f32 {
  if (blades < 3) return 1;
  const t = turn * blades;
  return cosTurns(0.5 / blades) / cosTurns((t - floor<f32>(t) - 0.5) / blades);
}
