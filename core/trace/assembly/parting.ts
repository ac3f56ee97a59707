/**
 * Glass that parts light: a path that comes to it is followed from there once for each channel, with the same numbers
 * each time. Were one channel taken by chance, each would have a third of the samples, and others than its neighbours:
 * grain in all colours, which is what the eye sees first.
 */

import { ownRoom } from './own';

/** The channel that a path is of; below 0 while it is of all of them. */
export let channel: i32 = -1;
/** The path has come to such glass. */
export let done: bool = false;
/** What it let through there. */
export let tr: f32 = 1;
export let tg: f32 = 1;
export let tb: f32 = 1;

/** Green comes first, whose index is that of the finish; then red, and blue. */
const FIRST: i32 = 1;
let wanted: i32 = FIRST;

/** Where a path is kept as it was when it came there. */
export const kept = ownRoom(20 * 4);

export function begin(): void {
  channel = -1;
  done = false;
  wanted = FIRST;
}

/** The path is there for the first time. */
export function arrive(red: f32, green: f32, blue: f32): void {
  done = true;
  tr = red;
  tg = green;
  tb = blue;
}

/** From here on the path is of the channel whose turn it is. */
@inline
export function part(): void {
  channel = wanted;
}

/** Whether there is one more channel. */
export function nextChannel(): bool {
  channel = -1;
  wanted = wanted == FIRST ? 0 : wanted == 0 ? 2 : 3;
  return wanted < 3;
}
