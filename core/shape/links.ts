import { NearPoints } from './near';

/**
 * Pairs of points at a distance between `least` and `radius`, the nearest first, no point in more
 * than `most` of them. Two numbers a pair.
 *
 * @param p 3 numbers a point
 * @param sizes one number ≥ 0 a point: distances between two are then measured in the mean of theirs
 */
export function linksBetween(
  p: ArrayLike<number>,
  radius: number,
  most: number,
  least = 0,
  sizes?: ArrayLike<number>,
): number[] {
  const count = p.length / 3;
  let largest = sizes ? 0 : 1;
  if (sizes) for (let i = 0; i < count; i++) largest = Math.max(largest, sizes[i]);
  const reach = radius * largest;
  if (!(reach > 0)) return [];
  const near = new NearPoints(p, reach);
  const found: { a: number; b: number; square: number }[] = [];
  for (let a = 0; a < count; a++)
    near.within(p[3 * a], p[3 * a + 1], p[3 * a + 2], reach, (b, distance) => {
      if (b <= a) return;
      const unit = sizes ? (sizes[a] + sizes[b]) / 2 : 1;
      const square = unit > 0 ? distance / (unit * unit) : 0;
      if (square > 0 && square >= least * least && (!sizes || square < radius * radius)) found.push({ a, b, square });
    });
  found.sort((x, y) => x.square - y.square || x.a - y.a || x.b - y.b);
  const used = new Uint16Array(count);
  const out: number[] = [];
  for (const { a, b } of found) {
    if (used[a] >= most || used[b] >= most) continue;
    used[a]++;
    used[b]++;
    out.push(a, b);
  }
  return out;
}
