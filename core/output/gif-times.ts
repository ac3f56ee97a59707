import { frameRate } from '../time/loop';

/** Least duration of a GIF picture in hundredths of a second: players make ten of fewer (common practice). */
const LEAST = 2;
/** Most frames of which one is used. */
const MOST = 8;

/**
 * Uses every nth frame so that none is shorter than players support: 1 up to 50 frames per second, and beyond the
 * smallest divisor of the loop. Null if there is none.
 */
export function gifEvery(fps: number, frames: number): number | null {
  const { num, den } = frameRate(fps);
  for (let every = 1; every <= MOST; every++)
    if (frames % every === 0 && (100 * every * den) / num >= LEAST) return every;
  return null;
}

/** Duration of each GIF picture in hundredths of a second; they sum to the loop, within half of one. */
export function gifDelays(fps: number, frames: number, every: number): number[] {
  const { num, den } = frameRate(fps);
  const at = (i: number) => Math.round((100 * i * every * den) / num);
  return Array.from({ length: frames / every }, (_, i) => at(i + 1) - at(i));
}
