import { lerp4, whole } from './common';

/** Offsets of the tables of `gradient` in its working memory, in bytes. */
const STEPS: usize = 1024;
const PAIRS: usize = 2048;
const MATRIX: usize = 18_432;
const NUMBERS: usize = 18_512;

// @ts-ignore: decorator
@inline
function farEnd(g: v128): v128 {
  return f32x4.replace_lane(g, 3, -f32x4.extract_lane(g, 2));
}

/**
 * The tables of one octave: sums of permutations as ways in bytes, and the gradient behind every such
 * sum, so that no look-up is left after the third coordinate. Each gradient stands twice: for the near
 * end of a lattice edge along z, and for its far end with −z in the last place, which makes its product
 * with (x, y, z, 1) that with (x, y, z − 1). Where nothing wraps, both ends of an edge are neighbours
 * here, and what stands is their difference. Constants lie there, too: reading one is one instruction,
 * making it three, and registers are few.
 */
function prepare(affine: usize, perm: usize, table: usize, work: usize, wraps: bool): void {
  for (let i: usize = 0; i < 512; i++) {
    const n = <usize>load<u8>(perm + i);
    store<u16>(work + (i << 1), <u16>(n << 1));
    store<u16>(work + (i << 1), <u16>(n << 5), STEPS);
    const near = v128.load(table + (n << 4)), at = work + (i << 5);
    v128.store(at, near, PAIRS);
    if (wraps) v128.store(at, farEnd(near), PAIRS + 16);
    else v128.store(at, f32x4.sub(farEnd(v128.load(table + (<usize>load<u8>(perm + ((i + 1) & 511)) << 4))), near), PAIRS + 16);
  }
  // The first two rows of the matrix as columns.
  for (let c: usize = 0; c < 32; c += 8) v128.store(work + (c << 1), f64x2(load<f64>(affine + c), load<f64>(affine + c, 32)), MATRIX);
  v128.store(work, f64x2(load<f64>(affine), load<f64>(affine, 40)), MATRIX + 64);
  v128.store(work, f32x4.splat(6), NUMBERS);
  v128.store(work, f32x4.splat(15), NUMBERS + 16);
  v128.store(work, f32x4.splat(10), NUMBERS + 32);
  v128.store(work, f64x2.splat(6755399441055744.0), NUMBERS + 48);
  v128.store(work, f32x4(1, 0, 0, 0), NUMBERS + 64);
  v128.store(work, f32x4(0, 1, 0, 0), NUMBERS + 80);
}

/** The gradients at both ends of an edge along z, blended. */
// @ts-ignore: decorator
@inline
function edge(at: usize, w: v128, up: usize, wraps: bool): v128 {
  const near = v128.load(at, PAIRS);
  return wraps ? lerp4(w, near, v128.load(at + up, PAIRS + 48)) : f32x4.add(near, f32x4.mul(w, v128.load(at, PAIRS + 16)));
}

/** A lattice of period 256 has its tables written twice, so that nothing wraps within it. */
// @ts-ignore: decorator
@inline
function octave(points: usize, count: u32, affine: usize, mask: i32, weight: f32, work: usize, out: usize, wraps: bool): void {
  const m8 = load<f64>(affine, 64), m9 = load<f64>(affine, 72), m10 = load<f64>(affine, 80), m11 = load<f64>(affine, 88);
  const turned = m8 != 0 || m9 != 0 || load<f64>(affine, 8) != 0 || load<f64>(affine, 16) != 0 || load<f64>(affine, 32) != 0 || load<f64>(affine, 48) != 0;
  const end = out + (<usize>count << 2);
  for (; out < end; out += 4) {
    let xy = f64x2.promote_low_f32x4(v128.load64_zero(points)), z = <f64>load<f32>(points, 8);
    points += 12;
    if (turned) {
      const p = xy;
      xy = f64x2.add(
        f64x2.add(f64x2.mul(v128.load(work, MATRIX), v128.shuffle<f64>(p, p, 0, 0)), f64x2.mul(v128.load(work, MATRIX + 16), v128.shuffle<f64>(p, p, 1, 1))),
        f64x2.add(f64x2.mul(v128.load(work, MATRIX + 32), f64x2.splat(z)), v128.load(work, MATRIX + 48)),
      );
      z = m8 * f64x2.extract_lane(p, 0) + m9 * f64x2.extract_lane(p, 1) + (m10 * z + m11);
    } else {
      xy = f64x2.add(f64x2.mul(v128.load(work, MATRIX + 64), xy), v128.load(work, MATRIX + 48));
      z = m10 * z + m11;
    }
    const fxy = f64x2.floor(xy), fz = Math.floor(z);
    const ints = f64x2.add(fxy, v128.load(work, NUMBERS + 48));
    const X = i32x4.extract_lane(ints, 0) & mask, Y = i32x4.extract_lane(ints, 2) & mask, Z = whole(fz) & mask;
    const atX = work + (<usize>X << 1), atY = work + (<usize>Y << 1), atZ = work + (<usize>Z << 5);
    let AA: usize, AB: usize, BA: usize, BB: usize, up: usize = 0;
    if (wraps) {
      const nextY = work + (<usize>((Y + 1) & mask) << 1);
      const A = <usize>load<u16>(atX), B = <usize>load<u16>(work + (<usize>((X + 1) & mask) << 1));
      AA = <usize>load<u16>(atY + A, STEPS), AB = <usize>load<u16>(nextY + A, STEPS);
      BA = <usize>load<u16>(atY + B, STEPS), BB = <usize>load<u16>(nextY + B, STEPS);
      up = <usize>((((Z + 1) & mask) - Z - 1) << 5);
    } else {
      const A = atY + <usize>load<u16>(atX), B = atY + <usize>load<u16>(atX, 2);
      AA = <usize>load<u16>(A, STEPS), AB = <usize>load<u16>(A, STEPS + 2);
      BA = <usize>load<u16>(B, STEPS), BB = <usize>load<u16>(B, STEPS + 2);
    }
    AA += atZ, AB += atZ, BA += atZ, BB += atZ;
    const way = f32x4.replace_lane(f32x4.replace_lane(f32x4.demote_f64x2_zero(f64x2.sub(xy, fxy)), 2, <f32>(z - fz)), 3, 1);
    const bend = f32x4.add(f32x4.mul(way, f32x4.sub(f32x4.mul(way, v128.load(work, NUMBERS)), v128.load(work, NUMBERS + 16))), v128.load(work, NUMBERS + 32));
    const f = f32x4.mul(f32x4.mul(f32x4.mul(way, way), way), bend);
    const u = v128.shuffle<f32>(f, f, 0, 0, 0, 0), v = v128.shuffle<f32>(f, f, 1, 1, 1, 1), w = v128.shuffle<f32>(f, f, 2, 2, 2, 2);
    const oneY = v128.load(work, NUMBERS + 80);
    const wayX = f32x4.sub(way, v128.load(work, NUMBERS + 64));
    const a = f32x4.mul(edge(AA, w, up, wraps), way);
    const b = f32x4.mul(edge(BA, w, up, wraps), wayX);
    const c = f32x4.mul(edge(AB, w, up, wraps), f32x4.sub(way, oneY));
    const d = f32x4.mul(edge(BB, w, up, wraps), f32x4.sub(wayX, oneY));
    const s = lerp4(v, lerp4(u, a, b), lerp4(u, c, d));
    const half = f32x4.add(s, v128.shuffle<f32>(s, s, 2, 3, 0, 1));
    const n = f32x4.extract_lane(half, 0) + f32x4.extract_lane(half, 1);
    store<f32>(out, load<f32>(out) + weight * n);
  }
}

/**
 * Gradient noise. The gradients of an edge along z are blended before they are multiplied with the way
 * to it; components are summed once at the end.
 *
 * points: f32 ×3 each; affine: f64 ×12, rows of a 3×4 matrix; perm: 512 bytes; table: 256 gradients of
 * f32 ×4, the last 0; work: 18 608 bytes; out: f32 each, `weight` times the noise added to what is there.
 */
export function gradient(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, weight: f32, work: usize, out: usize): void {
  prepare(affine, perm, table, work, mask != 255);
  if (mask == 255) octave(points, count, affine, 255, weight, work, out, false);
  else octave(points, count, affine, mask, weight, work, out, true);
}
