import type { Image } from '../assets/image';
import { displayToLight, lightToDisplay } from '../maths/srgb';

/**
 * Bilinear linear light and coverage of a picture at a position; it repeats beyond its edges.
 *
 * @param u 0…1 from left to right
 * @param v 0…1 from bottom to top
 */
export function readPixel({ width, height, values }: Image, u: number, v: number): [number, number, number, number] {
  const [x, y] = [u * width - 0.5, (1 - v) * height - 0.5];
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const out: [number, number, number, number] = [0, 0, 0, 0];
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ]) {
    const weight = (dx ? x - x0 : 1 - x + x0) * (dy ? y - y0 : 1 - y + y0);
    const [i, j] = [(((x0 + dx) % width) + width) % width, (((y0 + dy) % height) + height) % height];
    const at = 4 * (j * width + i);
    for (let k = 0; k < 3; k++) out[k] += weight * displayToLight(values[at + k] / 255);
    out[3] += (weight * values[at + 3]) / 255;
  }
  return out;
}

/** Perceived brightness 0…1: luminance (Rec. 709) as a display value. */
export function brightnessOf([r, g, b]: readonly number[]): number {
  return lightToDisplay(0.2126 * r + 0.7152 * g + 0.0722 * b);
}
