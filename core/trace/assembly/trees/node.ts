import { allocate } from '../base/per-thread';
import * as scene from '../base/scene';
import { AXIS, CODES, HIGH } from './tree';

/**
 * Bytes of the traversal stack, enough for any tree: the depth is below 128 (HALVES in binned.ts), and each level
 * pushes at most seven entries and writes eight. Not a multiple of 4096: processors that compare the low bits of
 * addresses first would confuse the codes with the distances.
 */
export const DEPTH: usize = 1088 * 4;

/** For each set of four boxes: the byte order that packs the codes of those hit, nearest first. */
const packed = allocate(16 * 16);

export function prepareTraversal(): void {
  for (let mask: usize = 0; mask < 16; mask++) {
    let k: usize = 0;
    for (let lane: usize = 0; lane < 4; lane++) {
      if (!(mask & (1 << lane))) continue;
      for (let byte: usize = 0; byte < 4; byte++) store<u8>(packed + (mask << 4) + (k << 2) + byte, <u8>((lane << 2) + byte));
      k++;
    }
    for (let rest = k << 2; rest < 16; rest++) store<u8>(packed + (mask << 4) + rest, 0xff);
  }
}

/** Distances along a ray to four planes across an axis. */
@inline
function along(at: usize, v: v128, w: v128): v128 {
  return f32x4.mul(f32x4.sub(v128.load(at), v), w);
}

/**
 * Tests the eight boxes of a node and pushes those hit, the nearest last; without branches, which could not be
 * predicted.
 *
 * @param vx ray origin along an axis, four times; wx the reciprocal of its direction
 * @param sx offset in a node of the near side
 * @param depth bytes on the stack
 * @param any the order does not matter
 * @returns bytes on the stack
 */
@inline
export function children(
  node: i32,
  vx: v128,
  vy: v128,
  vz: v128,
  wx: v128,
  wy: v128,
  wz: v128,
  sx: usize,
  sy: usize,
  sz: usize,
  start: v128,
  farthest: f32,
  stack: usize,
  depth: usize,
  any: bool,
): u64 {
  const at = scene.nodes + <usize>node;
  const end = f32x4.splat(farthest);
  const x = at + sx;
  const y = at + sy;
  const z = at + sz;
  const x2 = at + HIGH - sx;
  const y2 = at + HIGH + 2 * AXIS - sy;
  const z2 = at + HIGH + 4 * AXIS - sz;
  // The processor's plain minimum and maximum: NaN in the first argument stays NaN. Missing boxes are NaN, and no
  // comparison with them holds.
  const nearA = f32x4.pmax(f32x4.pmax(along(x, vx, wx), along(y, vy, wy)), f32x4.pmax(along(z, vz, wz), start));
  const farA = f32x4.pmin(f32x4.pmin(along(x2, vx, wx), along(y2, vy, wy)), f32x4.pmin(along(z2, vz, wz), end));
  const nearB = f32x4.pmax(
    f32x4.pmax(along(x + 16, vx, wx), along(y + 16, vy, wy)),
    f32x4.pmax(along(z + 16, vz, wz), start),
  );
  const farB = f32x4.pmin(
    f32x4.pmin(along(x2 + 16, vx, wx), along(y2 + 16, vy, wy)),
    f32x4.pmin(along(z2 + 16, vz, wz), end),
  );
  // Rounding may bring the far side slightly before the near side.
  const little = f32x4.splat(0.9999996);
  const metA = f32x4.le(f32x4.mul(nearA, little), farA);
  const metB = f32x4.le(f32x4.mul(nearB, little), farB);
  const maskA = i32x4.bitmask(metA);
  const maskB = i32x4.bitmask(metB);
  const codesA = v128.load(at, CODES);
  const codesB = v128.load(at, CODES + 16);
  if (any) {
    const more = <usize>popcnt(maskA) << 2;
    v128.store(stack + depth, i8x16.swizzle(codesA, v128.load(packed + (<usize>maskA << 4))));
    v128.store(stack + depth + more, i8x16.swizzle(codesB, v128.load(packed + (<usize>maskB << 4))));
    return <u64>(more + (<usize>popcnt(maskB) << 2));
  }
  // Distances are not negative, so that they sort as integers; the lowest three bits name the child. A miss is −1: the
  // least integer, or the greatest if unsigned.
  const ofA = v128.or(v128.and(nearA, i32x4.splat(0x7ffffff8)), i32x4(0, 1, 2, 3));
  const ofB = v128.or(v128.and(nearB, i32x4.splat(0x7ffffff8)), i32x4(4, 5, 6, 7));
  let a = v128.bitselect(ofA, i32x4.splat(-1), metA);
  let b = v128.bitselect(ofB, i32x4.splat(-1), metB);
  let least = i32x4.min_u(a, b);
  least = i32x4.min_u(least, v128.shuffle<i32>(least, least, 2, 3, 0, 1));
  least = i32x4.min_u(least, v128.shuffle<i32>(least, least, 1, 0, 3, 2));
  const nearest = load<u32>(at + ((i32x4.extract_lane(least, 0) & 7) << 2), CODES);
  // Odd-even merge sorting network of eight, the farthest first (K. E. Batcher, 1968). 0, 2, 4, 6 and 1, 3, 5, 7.
  let s = i32x4.max_s(a, b);
  let t = i32x4.min_s(a, b);
  // 0, 4, 1, 5 and 2, 6, 3, 7.
  a = v128.shuffle<i32>(s, t, 0, 2, 4, 6);
  b = v128.shuffle<i32>(s, t, 1, 3, 5, 7);
  s = i32x4.max_s(a, b);
  t = i32x4.min_s(a, b);
  // 1, 5 with 2, 6.
  const h = v128.shuffle<i32>(s, s, 2, 3, 2, 3);
  const p = i32x4.max_s(h, t);
  const q = i32x4.min_s(h, t);
  // 0, 4, 1, 5 and 2, 6, 3, 7.
  a = v128.shuffle<i32>(s, p, 0, 1, 4, 5);
  b = v128.shuffle<i32>(q, t, 0, 1, 6, 7);
  // 0, 1, 2, 3 and 4, 5, 6, 7.
  s = v128.shuffle<i32>(a, b, 0, 2, 4, 6);
  t = v128.shuffle<i32>(a, b, 1, 3, 5, 7);
  a = i32x4.max_s(s, t);
  b = i32x4.min_s(s, t);
  // 2, 3 with 4, 5.
  const g = v128.shuffle<i32>(a, a, 2, 3, 2, 3);
  const u = i32x4.max_s(g, b);
  const v = i32x4.min_s(g, b);
  // 0, 1, 2, 3 and 4, 5, 6, 7; then 1 with 2, 3 with 4, 5 with 6.
  a = v128.shuffle<i32>(a, u, 0, 1, 4, 5);
  b = v128.shuffle<i32>(v, b, 0, 1, 6, 7);
  // Odd: 1, 3, 5, 7; even: 2, 4, 6, and what is behind all.
  s = v128.shuffle<i32>(a, b, 1, 3, 5, 7);
  t = v128.shuffle<i32>(a, b, 2, 4, 6, 6);
  const m = i32x4.max_s(s, t);
  const n = i32x4.min_s(s, t);
  // 0, 1, 2, 3: a0, m0, n0, m1; 4, 5, 6, 7: n1, m2, n2, b3.
  const mn = v128.shuffle<i32>(m, n, 0, 4, 1, 5);
  a = v128.shuffle<i32>(v128.shuffle<i32>(a, m, 0, 4, 0, 4), mn, 0, 1, 5, 6);
  b = v128.shuffle<i32>(v128.shuffle<i32>(n, m, 1, 6, 1, 6), v128.shuffle<i32>(n, b, 2, 7, 2, 7), 0, 1, 4, 5);
  v128.store(stack + depth, a, DEPTH);
  v128.store(stack + depth, b, DEPTH + 16);
  v128.store(stack + depth, codesOf(a, codesA, codesB));
  v128.store(stack + depth, codesOf(b, codesA, codesB), 16);
  return <u64>(<usize>popcnt(maskA | (maskB << 4)) << 2) | (<u64>nearest << 32);
}

/** The codes of four children, which the lowest three bits name. */
@inline
function codesOf(k: v128, codes: v128, codes2: v128): v128 {
  // First byte of each code, and the bytes that follow it.
  const first = i32x4.shl(v128.and(k, i32x4.splat(7)), 2);
  const bytes = v128.or(
    v128.shuffle<i8>(first, first, 0, 0, 0, 0, 4, 4, 4, 4, 8, 8, 8, 8, 12, 12, 12, 12),
    i8x16(0, 1, 2, 3, 0, 1, 2, 3, 0, 1, 2, 3, 0, 1, 2, 3),
  );
  return v128.or(i8x16.swizzle(codes, bytes), i8x16.swizzle(codes2, v128.xor(bytes, i8x16.splat(16))));
}

