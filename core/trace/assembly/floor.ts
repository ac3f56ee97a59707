import * as hit from './intersect';
import * as lamp from './lamps';
import { cosTurns, sinTurns } from './maths';
import { ownRoom } from './own';
import * as room from './room';
import { next } from './sampler';
import { leftB, leftG, leftR, reaches } from './shadow';

/** A floor under everything, of which only shadows and mirror images are seen. */

/** Where a path goes on that the floor mirrors, and in which direction. */
export let fromX: f32 = 0;
export let fromY: f32 = 0;
export let fromZ: f32 = 0;
export let mx: f32 = 0;
export let my: f32 = 0;
export let mz: f32 = 0;

/** Places of lamps that are weighed against each other for the shadow on a floor. */
const TRIES = 8;
/** Bytes of each: how bright it is, and what was taken. */
const TRIED: usize = 40;
const tried = ownRoom(8 * 40);

/**
 * Whether the floor shows shadow at a place of the ray. It does so as often as the share of the light that is kept away:
 * of some places of lamps one is chosen as often as it is bright, and looked at.
 */
export function catches(ox: f32, oz: f32, dx: f32, dz: f32, down: f32): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = room.floorHeight();
  const strength = room.floorStrength() * room.floorShare(x, z);
  if (next() >= strength) return false;
  let sum: f32 = 0;
  lamp.weigh(x, y, z);
  for (let k = 0; k < TRIES; k++) {
    const at = tried + <usize>k * TRIED;
    store<f32>(at, 0);
    if (!lamp.take(next(), x, y, z, next(), next()) || !lamp.shadows || lamp.ly <= 0) continue;
    const bright: f32 = (0.2126 * lamp.lightR + 0.7152 * lamp.lightG + 0.0722 * lamp.lightB) * lamp.ly;
    sum += bright;
    store<f32>(at, bright);
    lamp.keep(at + 4);
  }
  const pick = next() * sum;
  if (!(sum > 0)) return false;
  let k = 0;
  for (let so = load<f32>(tried); k < TRIES - 1 && so <= pick; so += load<f32>(tried + <usize>k * TRIED)) k++;
  const at = tried + <usize>k * TRIED;
  const begins: f32 = 0.00002 * (1 + max(abs(x), max(abs(y), abs(z))) + down);
  lamp.aim(at + 4);
  const there = reaches(x, y + begins, z);
  return !(there && next() < (leftR + leftG + leftB) / 3);
}

/** Whether the floor mirrors something at a place of the ray; if so, where the path goes on, and in which direction. */
export function mirrors(ox: f32, oz: f32, dx: f32, dy: f32, dz: f32, down: f32): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = room.floorHeight();
  const share = room.floorMirror() * room.floorShare(x, z);
  if (share <= 0 || next() >= share) return false;
  const radius = room.floorSpread() * sqrt<f32>(next());
  const turn = next();
  const far = sqrt<f32>(dx * dx + dz * dz);
  // Beside the mirrored ray, across it and along it.
  const ax: f32 = far > 1e-6 ? dz / far : 1;
  const az: f32 = far > 1e-6 ? -dx / far : 0;
  const p = radius * cosTurns(turn);
  const q = radius * sinTurns(turn);
  mx = dx + p * ax - q * dy * az;
  my = -dy + q * far;
  mz = dz + p * az + q * dy * ax;
  if (my <= 1e-4) my = 1e-4;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  fromX = x;
  fromY = y + 0.00002 * (1 + max(abs(x), max(abs(y), abs(z))) + down);
  fromZ = z;
  return hit.intersect(fromX, fromY, fromZ, mx, my, mz, 0, Infinity, true);
}
