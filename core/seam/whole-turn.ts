import type { MotionDoc } from '../time/motion';

/**
 * An even turn that closes: from a value on by a gain in each loop.
 *
 * @param gain per loop, a whole multiple of the cycle
 */
export const wholeTurn = (from: number, gain: number): MotionDoc => ({
  motion: 'keys',
  adds: gain,
  keys: [{ at: 0, value: from, to: 'linear' }],
});
