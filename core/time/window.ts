import type { Clock } from './loop';
import { wholePhase } from './phase';

/**
 * A factor 0…1 over the loop: 0 in a share `rest` of it around the seam, 1 in the middle, with a smoothstep (3x² − 2x³)
 * between, each a quarter of what is left.
 *
 * @param rest share of the loop, 0…1, half of it on each side of the seam
 * @returns the factor, and its change per frame
 */
export function fadeWindow(rest: number, clock: Clock): { value: number; slope: number } {
  const p = wholePhase(1, clock);
  const side = p <= 0.5 ? 1 : -1;
  const fromSeam = p <= 0.5 ? p : 1 - p;
  const ramp = (1 - rest) / 4;
  const x = ramp > 0 ? (fromSeam - rest / 2) / ramp : 0;
  if (x <= 0) return { value: 0, slope: 0 };
  if (x >= 1) return { value: 1, slope: 0 };
  return { value: x * x * (3 - 2 * x), slope: (side * 6 * x * (1 - x)) / ramp / clock.frames };
}
