import { least, whole } from './common';

/** Bytes between the tables of x, y and z: 256 rows of 135, padded away from a power of two. */
const PLANE: usize = 138_304;
/** Start of the tables, after the permutations as byte offsets. */
const TABLES: usize = 2048;

/**
 * The feature points behind every sum of permutations, as three tables of x, y and z in the order of
 * cells along z, so that four cells in a row are read at once. A pattern that repeats after all 256
 * cells has one row that runs on round its end; a smaller one has a row for each column of cells.
 * Each row begins two cells early and ends five late.
 */
function prepare(perm: usize, table: usize, mask: i32, work: usize): void {
  const rows = mask == 255 ? 1 : 256, length = mask == 255 ? 518 : mask + 8, stride = mask == 255 ? 1 : mask + 8;
  for (let i: usize = 0; i < 512; i++) store<u32>(work + (i << 2), (<u32>load<u8>(perm + i) * stride) << 2);
  let at = work + TABLES;
  for (let row = 0; row < rows; row++)
    for (let z = -2; z < length - 2; z++) {
      const q = table + (<usize>load<u8>(perm + row + (z & mask)) << 4);
      store<f32>(at, load<f32>(q));
      store<f32>(at, load<f32>(q, 4), PLANE);
      store<f32>(at, load<f32>(q, 8), 2 * PLANE);
      at += 4;
    }
}

/** Squared distances to the points of four cells along z, starting one cell back. */
// @ts-ignore: decorator
@inline
function squares(at: usize, x: v128, y: v128, z: v128): v128 {
  const dx = f32x4.add(v128.load(at, TABLES + 4), x), dy = f32x4.add(v128.load(at, TABLES + 4 + PLANE), y), dz = f32x4.add(v128.load(at, TABLES + 4 + 2 * PLANE), z);
  return f32x4.add(f32x4.add(f32x4.mul(dx, dx), f32x4.mul(dy, dy)), f32x4.mul(dz, dz));
}

/** The second smallest of all lanes of two vectors, where no lane of `second` is below that of `first`. */
// @ts-ignore: decorator
@inline
function secondLeast(first: v128, second: v128): f32 {
  const turned = v128.shuffle<f32>(first, first, 2, 3, 0, 1);
  const low = f32x4.pmin(first, turned), next = f32x4.pmin(f32x4.pmax(first, turned), f32x4.pmin(second, v128.shuffle<f32>(second, second, 2, 3, 0, 1)));
  const crossed = v128.shuffle<f32>(low, low, 1, 0, 3, 2);
  const most = f32x4.pmax(low, crossed), rest = f32x4.pmin(next, v128.shuffle<f32>(next, next, 1, 0, 3, 2));
  return f32x4.extract_lane(f32x4.pmin(most, rest), 0);
}

let farFirst: f32 = 0;
let farSecond: f32 = 0;

/**
 * All cells within two of the place, and three more along z that do no harm, into farFirst and farSecond.
 * That is always enough: with w ≥ ½ the longest way to a side of the own cell along each axis, the
 * point of the own cell and that beyond the nearest side lie within √(Σw²) and √((2 − w)² + 2w²) ≤ √3.
 */
function far(perm: usize, work: usize, from: usize, X: i32, Y: i32, mask: i32, x: v128, y: v128, z: v128): void {
  let first = f32x4.splat(Infinity), second = f32x4.splat(Infinity);
  const on = f32x4.splat(3);
  for (let a = -2; a <= 2; a++) {
    const A = <i32>load<u8>(perm + ((X + a) & mask));
    const ax = f32x4.add(x, f32x4.splat(<f32>a));
    for (let b = -2; b <= 2; b++) {
      const at = from + <usize>load<u32>(work + (<usize>(A + ((Y + b) & mask)) << 2));
      const by = f32x4.add(y, f32x4.splat(<f32>b));
      // Four from two cells back, then four from two cells on.
      let d = squares(at - 4, ax, by, f32x4.sub(z, f32x4.splat(1)));
      second = f32x4.pmin(second, f32x4.pmax(first, d));
      first = f32x4.pmin(first, d);
      d = squares(at + 12, ax, by, f32x4.add(z, on));
      second = f32x4.pmin(second, f32x4.pmax(first, d));
      first = f32x4.pmin(first, d);
    }
  }
  farFirst = least(first);
  farSecond = secondLeast(first, second);
}

/** The distance: 1 to the nearest, 2 to the second nearest, 3 their difference. */
// @ts-ignore: decorator
@inline
function cells(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, mean: f32, weight: f32, work: usize, out: usize, which: i32): void {
  prepare(perm, table, mask, work);
  const c0 = f64x2(load<f64>(affine), load<f64>(affine, 32)), c1 = f64x2(load<f64>(affine, 8), load<f64>(affine, 40));
  const c2 = f64x2(load<f64>(affine, 16), load<f64>(affine, 48)), c3 = f64x2(load<f64>(affine, 24), load<f64>(affine, 56));
  const m8 = load<f64>(affine, 64), m9 = load<f64>(affine, 72), m10 = load<f64>(affine, 80), m11 = load<f64>(affine, 88);
  const end = out + (<usize>count << 2);
  for (; out < end; out += 4) {
    const px = <f64>load<f32>(points), py = <f64>load<f32>(points, 4), pz = <f64>load<f32>(points, 8);
    points += 12;
    const exy = f64x2.add(f64x2.add(f64x2.add(f64x2.mul(c0, f64x2.splat(px)), f64x2.mul(c1, f64x2.splat(py))), f64x2.mul(c2, f64x2.splat(pz))), c3);
    const ez = m8 * px + m9 * py + m10 * pz + m11;
    const fxy = f64x2.floor(exy), fz = Math.floor(ez);
    const ints = f64x2.add(fxy, f64x2.splat(6755399441055744.0));
    const X = i32x4.extract_lane(ints, 0), Y = i32x4.extract_lane(ints, 2), Z = whole(fz);
    const xy = f32x4.demote_f64x2_zero(f64x2.sub(exy, fxy));
    const x = f32x4.extract_lane(xy, 0), y = f32x4.extract_lane(xy, 1), z = <f32>(ez - fz);
    const zs = f32x4.sub(f32x4(-1, 0, 1, 2), f32x4.splat(z));
    const y1 = f32x4.splat(-y), y0 = f32x4.sub(y1, f32x4.splat(1)), y2 = f32x4.add(y1, f32x4.splat(1));
    const Y0 = <usize>((Y - 1) & mask) << 2, Y1 = <usize>(Y & mask) << 2, Y2 = <usize>((Y + 1) & mask) << 2;
    const from = work + (<usize>(Z & mask) << 2);
    let first = f32x4.splat(Infinity), second = f32x4.splat(Infinity);
    const x0 = f32x4.splat(-x);
    for (let a = -1; a <= 1; a++) {
      const A = work + (<usize>load<u8>(perm + ((X + a) & mask)) << 2);
      const xa = f32x4.splat(<f32>a - x);
      let d = squares(from + <usize>load<u32>(A + Y0), xa, y0, zs);
      if (which > 1) second = f32x4.pmin(second, f32x4.pmax(first, d));
      first = f32x4.pmin(first, d);
      d = squares(from + <usize>load<u32>(A + Y1), xa, y1, zs);
      if (which > 1) second = f32x4.pmin(second, f32x4.pmax(first, d));
      first = f32x4.pmin(first, d);
      d = squares(from + <usize>load<u32>(A + Y2), xa, y2, zs);
      if (which > 1) second = f32x4.pmin(second, f32x4.pmax(first, d));
      first = f32x4.pmin(first, d);
    }
    // The square that is asked for; for the difference, that of the nearest too.
    let bound: f32 = which > 1 ? secondLeast(first, second) : least(first);
    let nearest = which == 2 ? bound : least(first);
    // Only a point farther than a cell can have a nearer one outside the 27 cells.
    if (bound > 1) {
      far(perm, work, from, X, Y, mask, x0, y1, zs);
      nearest = farFirst;
      bound = which > 1 ? farSecond : farFirst;
    }
    const value: f32 = which == 3 ? sqrt<f32>(bound) - sqrt<f32>(nearest) : sqrt<f32>(bound);
    store<f32>(out, load<f32>(out) + weight * (value - mean));
  }
}

/**
 * Distance to the nearest feature point (F1, Euclid): the 27 cells round the place and nine more along
 * z that come with them, four in a row at a time. Leaving out those too far to matter takes longer, since
 * a processor guesses wrong which they are.
 *
 * points: f32 ×3 each; affine: f64 ×12, rows of a 3×4 matrix; perm: 512 bytes; table: 256 feature points
 * of f32 ×4; work: 416 960 bytes; out: f32 each. Adds weight · (distance − mean).
 */
export function cellular(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, mean: f32, weight: f32, work: usize, out: usize): void {
  cells(points, count, affine, perm, table, mask, mean, weight, work, out, 1);
}

/** The same for the second nearest (F2), or, for `edges`, for the difference of the two. */
export function cellularSecond(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, mean: f32, weight: f32, work: usize, out: usize, edges: bool): void {
  if (edges) cells(points, count, affine, perm, table, mask, mean, weight, work, out, 3);
  else cells(points, count, affine, perm, table, mask, mean, weight, work, out, 2);
}
