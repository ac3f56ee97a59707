import { NearPoints } from './near';

/** Most pairs that are sorted; more take seconds and hundreds of megabytes. */
export const MOST_PAIRS = 2_000_000;
/** Most candidate pairs whose distance is computed. */
const MOST_LOOKED_AT = 400_000_000;

/** Too many points are within reach of each other. */
export class TooManyPairs extends Error {
  override readonly name = 'TooManyPairs';
  /** @param pairs their number, or an upper bound if they were not counted */
  constructor(
    readonly pairs: number,
    readonly counted: boolean,
  ) {
    super(`${pairs} pairs`);
  }
}

/**
 * Pairs of points at a distance between `least` and `radius`, the nearest first, no point in more
 * than `most` of them. Two numbers a pair.
 *
 * @param p 3 numbers a point
 * @param sizes one number ≥ 0 a point: distances between two are then measured in the mean of theirs
 * @throws TooManyPairs before any of them is put in order, where there are more than MOST_PAIRS
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
  const candidates = near.candidates() / 2;
  if (candidates > MOST_LOOKED_AT) throw new TooManyPairs(Math.round(candidates), false);
  const each = (visit: (a: number, b: number, square: number) => void) => {
    for (let a = 0; a < count; a++)
      near.within(p[3 * a], p[3 * a + 1], p[3 * a + 2], reach, (b, distance) => {
        if (b <= a) return;
        const unit = sizes ? (sizes[a] + sizes[b]) / 2 : 1;
        const square = unit > 0 ? distance / (unit * unit) : 0;
        if (square > 0 && square >= least * least && (!sizes || square < radius * radius)) visit(a, b, square);
      });
  };
  let pairs = 0;
  const [from, to, squares]: number[][] = [[], [], []];
  each((a, b, square) => {
    // Beyond the limit they are only counted.
    if (pairs++ >= MOST_PAIRS) return;
    from.push(a);
    to.push(b);
    squares.push(square);
  });
  if (pairs > MOST_PAIRS) throw new TooManyPairs(pairs, true);
  const order = Uint32Array.from(from, (_, i) => i);
  order.sort((x, y) => squares[x] - squares[y] || from[x] - from[y] || to[x] - to[y]);
  const used = new Uint16Array(count);
  const out: number[] = [];
  for (const i of order) {
    const [a, b] = [from[i], to[i]];
    if (used[a] >= most || used[b] >= most) continue;
    used[a]++;
    used[b]++;
    out.push(a, b);
  }
  return out;
}
