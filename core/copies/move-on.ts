import type { Clock } from '../time/loop';
import { toRational } from '../maths/rational';

/**
 * Position of copies that move on by places: copy i is at (i + a·t) mod n, a number in [0, n). For whole frames it is
 * reduced in integers, so that after whole places every copy stands exactly where another stood.
 *
 * @param advance a, places per loop
 * @param count n
 */
export function movedOn(advance: number, count: number, clock: Clock): (i: number) => number {
  const a = toRational(advance);
  const per = a.den * clock.frames;
  const span = per * count;
  let r = (a.num * clock.frame) % span;
  if (clock.loops) r = (r + ((a.num * clock.loops) % (a.den * count)) * clock.frames) % span;
  if (r < 0) r += span;
  const gone = r / per;
  return (i) => {
    const x = i + gone;
    const y = x >= count ? x - count : x;
    return y >= count ? 0 : y;
  };
}

/** Scale of a copy on an open row that moves on: it grows in at one end and shrinks away at the other. */
export function endSize(place: number, count: number): number {
  const x = Math.max(0, Math.min(1, place, count - place));
  return x * x * (3 - 2 * x);
}
