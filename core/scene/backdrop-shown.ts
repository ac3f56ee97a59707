import { hexToDisplay } from '../maths/srgb';
import type { BackdropAt } from './kind';

/** How far a gradient has come over at a share of the way, by where it is half over. */
export function gradientShare(along: number, middle: number): number {
  return Math.max(0, Math.min(1, along)) ** (Math.log(0.5) / Math.log(middle));
}

/**
 * The colour of a backdrop at a place of the picture, as display values; pictures and surroundings are shown by their
 * plain colour.
 *
 * @param u, v places from the left and from the top, 0…1
 * @param aspect width over height
 */
export function backdropShown(backdrop: BackdropAt, u: number, v: number, aspect: number): readonly number[] {
  const from = hexToDisplay(backdrop.colour);
  if (backdrop.type !== 'gradient') return from;
  const a = (backdrop.angle * Math.PI) / 180;
  const [x, y] = [u - 0.5, 0.5 - v];
  // From edge to edge whichever way it is turned.
  const reach = Math.abs(Math.sin(a)) * aspect + Math.abs(Math.cos(a));
  const along = backdrop.round
    ? Math.hypot(x, y) * Math.SQRT2
    : (Math.sin(a) * aspect * x - Math.cos(a) * y) / reach + 0.5;
  const share = gradientShare(along, backdrop.middle);
  const to = hexToDisplay(backdrop.to);
  return from.map((c, k) => c + (to[k] - c) * share);
}
