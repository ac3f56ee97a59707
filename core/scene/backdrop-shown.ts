import { assetOf } from '../assets/store';
import { hexToDisplay, lightToDisplay } from '../maths/srgb';
import { readPixel } from '../pattern/picture';
import type { BackdropAt } from './kind';

/** Mix of a gradient at a share of its length, given where it is half way. */
export function gradientShare(along: number, middle: number): number {
  return Math.max(0, Math.min(1, along)) ** (Math.log(0.5) / Math.log(middle));
}

/** Factors across and up that map a position in the frame to a fitted image. */
export function fitImage(fit: 'cover' | 'contain' | 'stretch', wider: number): readonly [number, number] {
  if (fit === 'stretch') return [1, 1];
  return fit === 'cover' ? [Math.min(1, 1 / wider), Math.min(1, wider)] : [Math.max(1, 1 / wider), Math.max(1, wider)];
}

/**
 * Colour of a backdrop at a position of the picture, as display values; an environment and a missing image show their
 * plain colour.
 *
 * @param u, v position from the left and from the top, 0…1
 * @param aspect width over height
 */
export function backdropShown(backdrop: BackdropAt, u: number, v: number, aspect: number): readonly number[] {
  const from = hexToDisplay(backdrop.colour);
  if (backdrop.type === 'image') return imageShown(backdrop, u, v, aspect) ?? from;
  if (backdrop.type !== 'gradient') return from;
  const a = (backdrop.angle * Math.PI) / 180;
  const [x, y] = [u - 0.5, 0.5 - v];
  // From edge to edge at any angle.
  const reach = Math.abs(Math.sin(a)) * aspect + Math.abs(Math.cos(a));
  const along = backdrop.round
    ? Math.hypot(x, y) * Math.SQRT2
    : (Math.sin(a) * aspect * x - Math.cos(a) * y) / reach + 0.5;
  const share = gradientShare(along, backdrop.middle);
  const to = hexToDisplay(backdrop.to);
  return from.map((c, k) => c + (to[k] - c) * share);
}

function imageShown(
  { file, fit, colour }: Extract<BackdropAt, { type: 'image' }>,
  u: number,
  v: number,
  aspect: number,
): number[] | null {
  const asset = file === '' ? undefined : assetOf(file);
  if (asset?.type !== 'image') return null;
  const { width, height } = asset.image;
  const [across, up] = fitImage(fit, width / height / aspect);
  const [x, y] = [(u - 0.5) * across, (0.5 - v) * up];
  if (Math.max(Math.abs(x), Math.abs(y)) > 0.5) return null;
  // Up to the centre of the last pixel: interpolation would wrap around.
  const within = (at: number, pixels: number) => Math.min(1 - 0.5 / pixels, Math.max(0.5 / pixels, at + 0.5));
  const [r, g, b, a] = readPixel(asset.image, within(x, width), within(y, height));
  const from = hexToDisplay(colour);
  return [r, g, b].map((c, k) => from[k] + (lightToDisplay(c) - from[k]) * a);
}
