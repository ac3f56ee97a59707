import * as lights from './lights';
import * as atmosphere from './atmosphere';
import { next } from '../base/sampler';

/** Single scattering in haze: light of a lamp that dust scatters towards the origin of a ray. */

/** Where on the ray it is scattered, and the unoccluded radiance. */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;

/** Samples a position on the ray and one light. Returns whether it contributes. */
export function sampleLight(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, to: f32): bool {
  if (!atmosphere.intersectHaze(ox, oy, oz, dx, dy, dz, to)) return false;
  const from = atmosphere.enters;
  const length = atmosphere.leaves - from;
  const t = from + length * next();
  x = ox + t * dx;
  y = oy + t * dy;
  z = oz + t * dz;
  const left = atmosphere.hazeTransmittance(oy, dy, t);
  lights.prepareSelection(x, y, z);
  if (!lights.sample(next(), x, y, z, next(), next())) return false;
  const share =
    length *
    atmosphere.scattering(y) *
    left *
    atmosphere.phase(lights.lx * dx + lights.ly * dy + lights.lz * dz);
  r = share * lights.lightR * atmosphere.hazeColour(0);
  g = share * lights.lightG * atmosphere.hazeColour(1);
  b = share * lights.lightB * atmosphere.hazeColour(2);
  return true;
}
