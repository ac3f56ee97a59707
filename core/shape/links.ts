import { NearPoints } from './near';

/**
 * Pairs of points at a distance between `least` and `radius`, the nearest first, no point in more
 * than `most` of them. Two numbers a pair.
 *
 * @param p 3 numbers a point
 */
export function linksBetween(p: ArrayLike<number>, radius: number, most: number, least = 0): number[] {
  if (radius <= 0) return [];
  const count = p.length / 3;
  const near = new NearPoints(p, radius);
  const found: { a: number; b: number; square: number }[] = [];
  for (let a = 0; a < count; a++)
    near.within(p[3 * a], p[3 * a + 1], p[3 * a + 2], radius, (b, square) => {
      if (b > a && square >= least * least && square > 0) found.push({ a, b, square });
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
