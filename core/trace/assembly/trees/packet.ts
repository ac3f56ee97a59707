import { allocate } from '../base/per-thread';

/**
 * A packet of four triangles: a corner and two edges, x, y, z of each, four numbers each; then their indices, −1 for
 * none.
 */
export const PACKET: usize = 160;
export const WHICH: usize = 144;

@inline
export function lane(v: v128, k: i32): f32 {
  return k == 0 ? f32x4.extract_lane(v, 0) : k == 1 ? f32x4.extract_lane(v, 1) : f32x4.extract_lane(v, 2);
}

/** A corner of each of the four triangles, then an edge, then the other edge. */
const corner = allocate(192);

/**
 * Fills in corners and edges of a packet that holds the indices of its triangles.
 *
 * @param corners three vectors of four numbers for each triangle
 */
export function fillPacket(at: usize, corners: usize): void {
  for (let k: usize = 0; k < 4; k++) {
    const i = load<i32>(at + (k << 2), WHICH);
    const from = corners + <usize>max(0, i) * 48;
    put(k, v128.load(from), v128.load(from, 16), v128.load(from, 32), i >= 0);
  }
  pack(at);
}

/** A missing triangle has edges of length 0 and is never hit. */
@inline
function put(k: usize, a: v128, b: v128, c: v128, there: bool): void {
  const o = corner + (k << 4);
  v128.store(o, a);
  v128.store(o, there ? f32x4.sub(b, a) : f32x4.splat(0), 64);
  v128.store(o, there ? f32x4.sub(c, a) : f32x4.splat(0), 128);
}

@inline
function pack(at: usize): void {
  across(corner, at, 16);
  across(corner + 64, at + 48, 16);
  across(corner + 128, at + 96, 16);
}

/** Transposes four x, y, z to four of each, at a stride in bytes. */
@inline
export function across(from: usize, at: usize, apart: usize): void {
  const a = v128.load(from);
  const b = v128.load(from, 16);
  const c = v128.load(from, 32);
  const d = v128.load(from, 48);
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  v128.store(at, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5));
  v128.store(at + apart, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7));
  v128.store(
    at + 2 * apart,
    v128.shuffle<f32>(v128.shuffle<f32>(a, b, 2, 6, 2, 6), v128.shuffle<f32>(c, d, 2, 6, 2, 6), 0, 1, 4, 5),
  );
}

/** Bounds of the packet that was refitted last. */
export let fittedLow: v128 = f32x4.splat(0);
export let fittedHigh: v128 = f32x4.splat(0);

/** Refits a packet to moved vertices and returns its bounds; see `triangleBoxes`. */
export function fitPacket(at: usize, points: usize, triangles: usize, some: i32): void {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let k: usize = 0; k < 4; k++) {
    const i = load<i32>(at + (k << 2), WHICH);
    const from = triangles + <usize>max(0, i) * 12;
    let a = v128.load(points + <usize>load<u32>(from) * 12);
    let b = v128.load(points + <usize>load<u32>(from, 4) * 12);
    let c = v128.load(points + <usize>load<u32>(from, 8) * 12);
    if (!isThere(a, b, c)) a = b = c = v128.load(points + <usize>some * 12);
    put(k, a, b, c, i >= 0);
    if (i < 0) continue;
    low = f32x4.pmin(f32x4.pmin(low, a), f32x4.pmin(b, c));
    high = f32x4.pmax(f32x4.pmax(high, a), f32x4.pmax(b, c));
  }
  pack(at);
  fittedLow = low;
  fittedHigh = high;
}

/** Beyond this, in metres, squared distances overflow. */
const FARTHEST: f32 = 1e15;

/** Whether all corners of a triangle are finite. */
@inline
function isThere(a: v128, b: v128, c: v128): bool {
  const most = f32x4.splat(FARTHEST);
  const there = v128.and(f32x4.lt(f32x4.abs(a), most), f32x4.lt(f32x4.abs(b), most));
  return (i32x4.bitmask(v128.and(there, f32x4.lt(f32x4.abs(c), most))) & 7) == 7;
}

/**
 * Bounds and corners of triangles, as `buildTree` takes them. A triangle with a corner that is not finite degenerates
 * to one finite vertex.
 *
 * @param points 3 numbers for each vertex, followed by 4 readable bytes
 * @param some a finite vertex
 * @param whole receives the bounds of all: lowest and highest x, y, z, 4 numbers each
 */
export function triangleBoxes(
  points: usize,
  triangles: usize,
  count: i32,
  some: i32,
  boxAt: usize,
  cornerAt: usize,
  whole: usize,
): void {
  let lowest = f32x4.splat(Infinity);
  let highest = f32x4.splat(-Infinity);
  for (let i = 0; i < count; i++, triangles += 12, boxAt += 32, cornerAt += 48) {
    let a = v128.load(points + <usize>load<u32>(triangles) * 12);
    let b = v128.load(points + <usize>load<u32>(triangles, 4) * 12);
    let c = v128.load(points + <usize>load<u32>(triangles, 8) * 12);
    if (!isThere(a, b, c)) a = b = c = v128.load(points + <usize>some * 12);
    v128.store(cornerAt, a);
    v128.store(cornerAt, b, 16);
    v128.store(cornerAt, c, 32);
    const low = f32x4.pmin(f32x4.pmin(a, b), c);
    const high = f32x4.pmax(f32x4.pmax(a, b), c);
    v128.store(boxAt, low);
    v128.store(boxAt, high, 16);
    lowest = f32x4.pmin(lowest, low);
    highest = f32x4.pmax(highest, high);
  }
  v128.store(whole, lowest);
  v128.store(whole, highest, 16);
}
