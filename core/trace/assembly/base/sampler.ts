/**
 * A low-discrepancy sequence per pixel: Sobol's in four dimensions (direction numbers of S. Joe & F. Y. Kuo, 2008) with
 * hash-based Owen scrambling; further dimensions shuffle the order of the points (B. Burley, “Practical Hash-based Owen
 * Scrambling”, 2020). Any number of samples is well distributed, and sample n of a pixel depends on pixel, seed and n
 * alone.
 */

import { allocate } from './per-thread';

/** Direction numbers of the second to fourth dimension, 32 each; those of the first are single bits. */
const DIRECTIONS = allocate(3 * 32 * 4);
/** For each byte of an index, the contribution of its 256 values to the four dimensions, bits reversed. */
const BYTES = allocate(4 * 256 * 16);

let seed: u32 = 0;
let index: u32 = 0;
let group: u32 = 0;
let dimension: u32 = 4;
/** The current four dimensions, computed on demand. */
const point = allocate(16);
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
  for (let byte = 0; byte < 4; byte++)
    for (let value = 0; value < 256; value++) {
      const at = BYTES + (<usize>(byte * 256 + value) << 4);
      store<u32>(at, <u32>value << (8 * byte));
      for (let d = 0; d < 3; d++) {
        let x: u32 = 0;
        for (let bit = 0; bit < 8; bit++)
          if ((value >> bit) & 1) x ^= load<u32>(DIRECTIONS + d * 128 + ((8 * byte + bit) << 2));
        store<u32>(at + (<usize>(d + 1) << 2), reversed(x));
      }
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

/** Owen scrambling of a number with reversed bits (S. Laine & T. Karras, 2011, constants after Burley). */
@inline
function scrambled(x: u32, by: u32): u32 {
  x ^= x * 0x3d20adea;
  x += by;
  x *= (by >> 16) | 1;
  x ^= x * 0x05526c56;
  x ^= x * 0x53a22864;
  return reversed(x);
}

/** A 32-bit hash (C. Wellons, “lowbias32”). */
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

/** The same for four numbers at once: bytes are reversed, and nibbles by a table. */
@inline
function reversed4(x: v128): v128 {
  const bytes = v128.shuffle<i8>(x, x, 3, 2, 1, 0, 7, 6, 5, 4, 11, 10, 9, 8, 15, 14, 13, 12);
  const low = v128.and(bytes, i8x16.splat(15));
  const high = v128.and(i16x8.shr_u(bytes, 4), i8x16.splat(15));
  const up = i8x16.swizzle(i8x16(0, -128, 64, -64, 32, -96, 96, -32, 16, -112, 80, -48, 48, -80, 112, -16), low);
  return v128.or(up, i8x16.swizzle(i8x16(0, 8, 4, 12, 2, 10, 6, 14, 1, 9, 5, 13, 3, 11, 7, 15), high));
}
@inline
function scrambled4(x: v128, by: v128): v128 {
  x = v128.xor(x, i32x4.mul(x, i32x4.splat(0x3d20adea)));
  x = i32x4.add(x, by);
  x = i32x4.mul(x, v128.or(i32x4.shr_u(by, 16), i32x4.splat(1)));
  x = v128.xor(x, i32x4.mul(x, i32x4.splat(0x05526c56)));
  x = v128.xor(x, i32x4.mul(x, i32x4.splat(0x53a22864)));
  return reversed4(x);
}
@inline
function hashed4(x: v128): v128 {
  x = v128.xor(x, i32x4.shr_u(x, 16));
  x = i32x4.mul(x, i32x4.splat(0x7feb352d));
  x = v128.xor(x, i32x4.shr_u(x, 15));
  x = i32x4.mul(x, i32x4.splat(<i32>0x846ca68b));
  return v128.xor(x, i32x4.shr_u(x, 16));
}

/** Computes the current four dimensions, all below 1: with 24 bits they never round up to it. */
function fill(): void {
  stale = false;
  const shuffled = scrambled(reversed(index), hashed(seed + group * 0x9e3779b9));
  const low = v128.xor(
    v128.load(BYTES + <usize>((shuffled & 255) << 4)),
    v128.load(BYTES + <usize>(((shuffled >> 8) & 255) << 4), 4096),
  );
  const high = v128.xor(
    v128.load(BYTES + <usize>(((shuffled >> 16) & 255) << 4), 8192),
    v128.load(BYTES + <usize>((shuffled >> 24) << 4), 12288),
  );
  const which = i32x4.mul(i32x4.add(i32x4.splat(<i32>(group * 4)), i32x4(0, 1, 2, 3)), i32x4.splat(<i32>0x85ebca6b));
  const x = scrambled4(v128.xor(low, high), hashed4(v128.xor(which, i32x4.splat(<i32>seed))));
  v128.store(point, f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(x, 8)), f32x4.splat(0.000000059604645)));
}

/** Advances to the next dimension. */
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
  if (stale) fill();
  const x = load<f32>(point + (<usize>dimension << 2));
  dimension++;
  return x;
}

/** Skips a number that is used elsewhere: those after it stay the same with and without. */
export function skip(): void {
  step();
  dimension++;
}

/** Position in the sequence of dimensions. */
@inline
export function position(): u32 {
  return (group << 3) | dimension;
}

/** Moves to such a position. */
export function seek(to: u32): void {
  group = to >> 3;
  dimension = to & 7;
  stale = true;
}

let dice: u32 = 0;

/** Starts a pseudo-random sequence, for what takes an unknown number of values. */
export function beginRandom(): void {
  dice = hashed(seed ^ hashed(index)) + group * 4 + dimension;
}

/** Pseudo-random, 0 ≤ u < 1. */
export function random(): f32 {
  dice = hashed(dice + 0x9e3779b9);
  return <f32>(dice >> 8) * 0.000000059604645;
}
