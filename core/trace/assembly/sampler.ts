/**
 * A low-discrepancy sequence for each pixel: Sobol's in four dimensions (direction numbers of S. Joe & F. Y. Kuo,
 * 2008), scrambled after Owen by hashing, further dimensions by shuffling the order of the points (B. Burley,
 * “Practical Hash-based Owen Scrambling”, 2020). Any number of samples is well spread, and sample n of a pixel
 * depends on pixel, seed and n alone.
 */

import { ownRoom } from './own';

/** Direction numbers of the second to fourth dimension, 32 each; of the first they are single bits. */
const DIRECTIONS = ownRoom(3 * 32 * 4);
/**
 * For each of those dimensions and each byte of a point, what the bits of its 256 values come to, in the other order of
 * bits.
 */
const BYTES = ownRoom(3 * 4 * 256 * 4);

let seed: u32 = 0;
let index: u32 = 0;
let group: u32 = 0;
let dimension: u32 = 4;
/** The point of the present four dimensions; it is worked out when a number of them is wanted. */
let shuffled: u32 = 0;
let stale: bool = true;

/** Direction numbers from a primitive polynomial of degree s, its inner coefficients a and the first odd m. */
function directions(dim: i32, s: i32, a: u32, m0: u32, m1: u32, m2: u32): void {
  const at = DIRECTIONS + dim * 128;
  for (let i = 0; i < 32; i++) {
    let v: u32;
    if (i < s) v = (i == 0 ? m0 : i == 1 ? m1 : m2) << (31 - i);
    else {
      const before = load<u32>(at + ((i - s) << 2));
      v = before ^ (before >> s);
      for (let k = 1; k < s; k++) if ((a >> (s - 1 - k)) & 1) v ^= load<u32>(at + ((i - k) << 2));
    }
    store<u32>(at + (i << 2), v);
  }
}

export function prepareSampler(): void {
  directions(0, 1, 0, 1, 0, 0);
  directions(1, 2, 1, 1, 3, 0);
  directions(2, 3, 1, 1, 3, 1);
  for (let d = 0; d < 3; d++)
    for (let byte = 0; byte < 4; byte++)
      for (let value = 0; value < 256; value++) {
        let x: u32 = 0;
        for (let bit = 0; bit < 8; bit++)
          if ((value >> bit) & 1) x ^= load<u32>(DIRECTIONS + d * 128 + ((8 * byte + bit) << 2));
        store<u32>(BYTES + <usize>((d * 4 + byte) * 256 + value) * 4, reversed(x));
      }
}

@inline
function reversed(x: u32): u32 {
  x = (x << 16) | (x >> 16);
  x = ((x & 0x00ff00ff) << 8) | ((x & 0xff00ff00) >> 8);
  x = ((x & 0x0f0f0f0f) << 4) | ((x & 0xf0f0f0f0) >> 4);
  x = ((x & 0x33333333) << 2) | ((x & 0xcccccccc) >> 2);
  return ((x & 0x55555555) << 1) | ((x & 0xaaaaaaaa) >> 1);
}

/** Owen's scrambling of a number whose bits are reversed (S. Laine & T. Karras, 2011, constants after Burley). */
@inline
function scrambled(x: u32, by: u32): u32 {
  x ^= x * 0x3d20adea;
  x += by;
  x *= (by >> 16) | 1;
  x ^= x * 0x05526c56;
  x ^= x * 0x53a22864;
  return reversed(x);
}

/** A hash of 32 bits (C. Wellons, “lowbias32”). */
@inline
export function hashed(x: u32): u32 {
  x ^= x >> 16;
  x *= 0x7feb352d;
  x ^= x >> 15;
  x *= 0x846ca68b;
  return x ^ (x >> 16);
}

export function beginSample(x: u32, y: u32, frame: u32, n: u32): void {
  seed = hashed(x + hashed(y + hashed(frame)));
  index = n;
  group = 0;
  dimension = 4;
}

/** A coordinate of the present point, its bits reversed. */
@inline
function coordinate(d: u32): u32 {
  if (d == 0) return shuffled;
  const at = BYTES + <usize>((d - 1) << 12);
  return (
    load<u32>(at + ((shuffled & 255) << 2)) ^
    load<u32>(at + (((shuffled >> 8) & 255) << 2), 1024) ^
    load<u32>(at + (((shuffled >> 16) & 255) << 2), 2048) ^
    load<u32>(at + ((shuffled >> 24) << 2), 3072)
  );
}

/** On to the next dimension. */
@inline
function step(): void {
  if (dimension == 4) {
    dimension = 0;
    group++;
    stale = true;
  }
}

/** The next number of the sample, 0 ≤ u < 1. */
export function next(): f32 {
  step();
  if (stale) {
    stale = false;
    shuffled = scrambled(reversed(index), hashed(seed + group * 0x9e3779b9));
  }
  const x = scrambled(coordinate(dimension), hashed(seed ^ (group * 4 + dimension) * 0x85ebca6b));
  dimension++;
  // 24 bits, so that it is never rounded up to 1.
  return <f32>(x >> 8) * 0.000000059604645;
}

/** Leaves the next number out, which is wanted elsewhere: those after it are the same with and without. */
export function skip(): void {
  step();
  dimension++;
}

/** Where in the numbers of the sample the next one is. */
@inline
export function where(): u32 {
  return (group << 3) | dimension;
}

/** Back, or on, to such a place. */
export function goTo(place: u32): void {
  group = place >> 3;
  dimension = place & 7;
  stale = true;
}

let dice: u32 = 0;

/** Begins numbers that are only by chance, for what takes nobody knows how many of them. */
export function beginChance(): void {
  dice = hashed(seed ^ hashed(index)) + group * 4 + dimension;
}

/** By chance, 0 ≤ u < 1. */
export function chance(): f32 {
  dice = hashed(dice + 0x9e3779b9);
  return <f32>(dice >> 8) * 0.000000059604645;
}
