import { ownRoom } from './own';

/**
 * How likely each light is taken: by what it would bring to a place if nothing stood before it, and a little of each. What
 * brings nothing is not taken.
 */

/** The lights there may be, the sky and what glows among them. */
export const MOST = 96;
/** Of the place that was weighed last; of that which the path was sent on from; and the same of a path that is kept. */
const here = ownRoom(96 * 4);
const there = ownRoom(96 * 4);
const kept = ownRoom(96 * 4);
/** Of all that may bring light, each is taken at least so often as its part of this: what is brightest may be hidden. */
const EVENLY: f32 = 0.2;
let n: i32 = 0;

/** How many there are to choose from; one alone is always taken. */
export function count(all: i32): void {
  n = all;
  store<f32>(here, 1);
}

/** About how much light k brings; 0 only where it brings none. */
@inline
export function put(k: i32, bright: f32): void {
  store<f32>(here + (<usize>k << 2), bright);
}

/** What was put for all becomes how likely each is taken. */
export function settle(): void {
  let sum: f32 = 0;
  let some: f32 = 0;
  for (let k = 0; k < n; k++) {
    const bright = load<f32>(here + (<usize>k << 2));
    sum += bright;
    if (bright > 0) some++;
  }
  const by: f32 = sum > 0 ? (1 - EVENLY) / sum : 0;
  const each: f32 = some > 0 ? EVENLY / some : 0;
  for (let k = 0; k < n; k++) {
    const bright = load<f32>(here + (<usize>k << 2));
    put(k, bright > 0 ? by * bright + each : 0);
  }
}

/** Of what was taken: how likely that was, and what is left of the number that it was taken by, 0…1. */
export let share: f32 = 1;
export let rest: f32 = 0;

/** Takes one by a number from 0 to 1. */
export function take(which: f32): i32 {
  let k = 0;
  let before: f32 = 0;
  share = load<f32>(here);
  while (k < n - 1 && which >= before + share) {
    before += share;
    share = load<f32>(here + (<usize>++k << 2));
  }
  rest = share > 0 ? min<f32>(1, (which - before) / share) : 0;
  return k;
}

/** How likely light k was taken where the path was sent on. */
@inline
export function ofPath(k: i32): f32 {
  return load<f32>(there + (<usize>min(k, MOST - 1) << 2));
}

function copy(to: usize, from: usize): void {
  for (let k = 0; k < n; k++) store<f32>(to + (<usize>k << 2), load<f32>(from + (<usize>k << 2)));
}

/** The path is sent on from the place that was weighed last. */
export function sendOn(): void {
  copy(there, here);
}
/** Keeps what the path goes by, and brings it back. */
export function keep(): void {
  copy(kept, there);
}
export function comeBack(): void {
  copy(there, kept);
}
