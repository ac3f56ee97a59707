/**
 * Dispersive glass: the path is traced once per colour channel from there on, with the same random numbers each time.
 * Choosing one channel at random would leave each with a third of the samples, and different ones than its neighbours:
 * coloured noise, which the eye notices first.
 */

import { allocate } from '../base/per-thread';

/** Channel of the path; negative while it carries all of them. */
export let channel: i32 = -1;
/** The path has come to dispersive glass. */
export let split: bool = false;
/** Throughput at that point. */
export let throughputR: f32 = 1;
export let throughputG: f32 = 1;
export let throughputB: f32 = 1;

/** Green comes first, whose index of refraction is that of the finish; then red, and blue. */
const FIRST: i32 = 1;
let wanted: i32 = FIRST;

/** State of the path at that point. */
export const saved = allocate(20 * 4);

export function begin(): void {
  channel = -1;
  split = false;
  wanted = FIRST;
}

/** Called the first time the path gets there. */
export function enter(red: f32, green: f32, blue: f32): void {
  split = true;
  throughputR = red;
  throughputG = green;
  throughputB = blue;
}

/** From here on the path carries one channel. */
@inline
export function beginChannel(): void {
  channel = wanted;
}

/** Whether another channel is left. */
export function nextChannel(): bool {
  channel = -1;
  wanted = wanted == FIRST ? 0 : wanted == 0 ? 2 : 3;
  return wanted < 3;
}
