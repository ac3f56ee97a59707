import { toRational, type Rational } from '../maths/rational';

/** A loop: frames 0…frames−1 are shown; frame `frames` equals frame 0 and is never rendered. */
export interface Loop {
  /** N, an integer from 1 to MAX_FRAMES. */
  readonly frames: number;
  /** Frames per second, from 1 to 240; 23.976, 29.97 and 59.94 stand for n·1000/1001. */
  readonly fps: number;
}

export const MAX_FRAMES = 20_000;
export const MIN_FPS = 1;
export const MAX_FPS = 240;

/** A moment. `frame` is unwrapped: any real number, and N is not 0. */
export interface Clock {
  readonly frame: number;
  readonly frames: number;
  /**
   * Whole loops in addition to `frame`, 0 if absent: the moment is frame + loops · frames. Kept separate so that a
   * shifted motion still meets itself to the last bit.
   */
  readonly loops?: number;
}

/** The exact rate in frames per second. NTSC rates are n·1000/1001 (SMPTE ST 12-1). */
export function frameRate(fps: number): Rational {
  for (const whole of [24, 30, 48, 60, 120])
    if (Math.abs(fps - (whole * 1000) / 1001) < 0.006) return { num: whole * 1000, den: 1001 };
  return toRational(fps, 1e-6);
}

/** Length of the loop in seconds. */
export function loopSeconds(loop: Loop): number {
  const rate = frameRate(loop.fps);
  return (loop.frames * rate.den) / rate.num;
}

/** The nearest whole number of frames (at least one) for a length in seconds. */
export function framesForSeconds(seconds: number, fps: number): number {
  const rate = frameRate(fps);
  return Math.max(1, Math.min(MAX_FRAMES, Math.round((seconds * rate.num) / rate.den)));
}

/** f modulo N in 0…N−1 for display only; values are never evaluated through this. */
export function wrapFrame(frame: number, frames: number): number {
  const r = frame % frames;
  return r < 0 ? r + frames : r;
}
