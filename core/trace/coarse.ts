import type { TileExposure } from './exposure';
import { SUMS } from './worked';

/** Of so many pixels each way one is traced before all others, so that there is a picture at once. */
export const COARSE = 8;

/** Rows and columns of pixels that are traced first. */
export function coarseSize(width: number, height: number): { readonly width: number; readonly height: number } {
  return { width: Math.ceil(width / COARSE), height: Math.ceil(height / COARSE) };
}

/** The pixel, across or down, that stands for the `i`th of those. */
export const coarsePixel = (i: number, size: number) => Math.min(size - 1, i * COARSE + COARSE / 2);

/** The first sample of every pixel of a row of those; SUMS numbers each. */
export function coarseRow(exposure: TileExposure, row: number, width: number, height: number): Float64Array {
  const across = coarseSize(width, height).width;
  const out = new Float64Array(SUMS * across);
  const y = coarsePixel(row, height);
  for (let i = 0; i < across; i++)
    out.set(exposure.traced({ x: coarsePixel(i, width), y, width: 1, height: 1 }, 1).sums, SUMS * i);
  return out;
}
