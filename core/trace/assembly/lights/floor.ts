import * as hit from '../trees/intersect';
import * as lights from './lights';
import { cosTurns, sinTurns } from '../base/maths';
import { allocate } from '../base/per-thread';
import * as atmosphere from './atmosphere';
import { next } from '../base/sampler';
import { transmittanceB, transmittanceG, transmittanceR, isVisible } from './shadow';

/** The shadow catcher: a floor of which only shadows and reflections are visible. */

/** Origin and direction of the reflected path. */
export let fromX: f32 = 0;
export let fromY: f32 = 0;
export let fromZ: f32 = 0;
export let mx: f32 = 0;
export let my: f32 = 0;
export let mz: f32 = 0;

/** Candidate light samples for the shadow of a point, of which one is chosen (resampled importance sampling). */
const CANDIDATES = 8;
/** Bytes of a candidate: its brightness, and the light sample. */
const CANDIDATE_BYTES: usize = 40;
const candidates = allocate(8 * 40);

/**
 * Whether the floor shows shadow where the ray hits it, which is true with the probability that equals the occluded
 * share of the light: one of several light samples is chosen in proportion to its brightness, and tested.
 */
export function isShadowed(ox: f32, oz: f32, dx: f32, dz: f32, down: f32): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = atmosphere.floorHeight();
  const strength = atmosphere.floorStrength() * atmosphere.floorFade(x, z);
  if (next() >= strength) return false;
  let sum: f32 = 0;
  lights.prepareSelection(x, y, z);
  for (let k = 0; k < CANDIDATES; k++) {
    const at = candidates + <usize>k * CANDIDATE_BYTES;
    store<f32>(at, 0);
    if (!lights.sample(next(), x, y, z, next(), next()) || !lights.castsShadow || lights.ly <= 0) continue;
    const bright: f32 = (0.2126 * lights.lightR + 0.7152 * lights.lightG + 0.0722 * lights.lightB) * lights.ly;
    sum += bright;
    store<f32>(at, bright);
    lights.save(at + 4);
  }
  const pick = next() * sum;
  if (!(sum > 0)) return false;
  let k = 0;
  for (let so = load<f32>(candidates); k < CANDIDATES - 1 && so <= pick; so += load<f32>(candidates + <usize>k * CANDIDATE_BYTES)) k++;
  const at = candidates + <usize>k * CANDIDATE_BYTES;
  const begins: f32 = 0.00002 * (1 + max(abs(x), max(abs(y), abs(z))) + down);
  lights.restore(at + 4);
  const there = isVisible(x, y + begins, z);
  return !(there && next() < (transmittanceR + transmittanceG + transmittanceB) / 3);
}

/** Whether the floor shows a reflection where the ray hits it; if so, where the path continues. */
export function reflects(ox: f32, oz: f32, dx: f32, dy: f32, dz: f32, down: f32): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = atmosphere.floorHeight();
  const share = atmosphere.floorMirror() * atmosphere.floorFade(x, z);
  if (share <= 0 || next() >= share) return false;
  const radius = atmosphere.floorSpread() * sqrt<f32>(next());
  const turn = next();
  const far = sqrt<f32>(dx * dx + dz * dz);
  // Spread of the reflected ray, across it and along it.
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
