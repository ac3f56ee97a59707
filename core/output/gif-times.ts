import { frameRate } from '../time/loop';

/** Hundredths of a second that a picture of a GIF stands at least: players make ten of fewer (common practice). */
const LEAST = 2;
/** Frames of which one is shown, at most. */
const MOST = 8;

/**
 * Every how many frames a GIF has one, so that none stands for less than players show: 1 up to 50 frames a second, and
 * beyond the smallest number that goes into the loop. Null where there is none.
 */
export function gifEvery(fps: number, frames: number): number | null {
  const { num, den } = frameRate(fps);
  for (let every = 1; every <= MOST; every++)
    if (frames % every === 0 && (100 * every * den) / num >= LEAST) return every;
  return null;
}

/** How long each picture of a GIF stands, in hundredths of a second: together they are the loop, to half of one. */
export function gifDelays(fps: number, frames: number, every: number): number[] {
  const { num, den } = frameRate(fps);
  const at = (i: number) => Math.round((100 * i * every * den) / num);
  return Array.from({ length: frames / every }, (_, i) => at(i + 1) - at(i));
}
