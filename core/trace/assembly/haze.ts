import * as lamp from './lamps';
import * as room from './room';
import { next } from './sampler';

/** Dust in the air that turns light of a lamp towards where a ray begins, once. */

/** The place of the ray where it does, and the light as if nothing stood before the lamp. */
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;

/** Takes one place of a ray at random, and one lamp. Whether there is light. */
export function turns(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, to: f32): bool {
  if (!room.crosses(ox, oy, oz, dx, dy, dz, to)) return false;
  const from = room.enters;
  const length = room.leaves - from;
  const t = from + length * next();
  x = ox + t * dx;
  y = oy + t * dy;
  z = oz + t * dz;
  const left = room.throughHaze(oy, dy, t);
  lamp.weigh(x, y, z);
  if (!lamp.take(next(), x, y, z, next(), next())) return false;
  const share =
    length *
    room.dust(y) *
    left *
    room.turned(lamp.lx * dx + lamp.ly * dy + lamp.lz * dz);
  r = share * lamp.lightR * room.hazeColour(0);
  g = share * lamp.lightG * room.hazeColour(1);
  b = share * lamp.lightB * room.hazeColour(2);
  return true;
}
