import type { TileExposure } from './exposure';
import { SUMS } from './tile-result';

/** One pixel of so many each way is traced before all others, so that there is a picture at once. */
export const COARSE = 8;

/** Columns and rows of the pixels that are traced first. */
export function coarseSize(width: number, height: number): { readonly width: number; readonly height: number } {
  return { width: Math.ceil(width / COARSE), height: Math.ceil(height / COARSE) };
}

/** Coordinate of the `i`th of those pixels, across or down. */
export const coarsePixel = (i: number, size: number) => Math.min(size - 1, i * COARSE + COARSE / 2);

/** The first sample of a row of those pixels; SUMS numbers each. */
export function coarseRow(exposure: TileExposure, row: number, width: number, height: number): Float64Array {
  const across = coarseSize(width, height).width;
  const out = new Float64Array(SUMS * across);
  const y = coarsePixel(row, height);
  for (let i = 0; i < across; i++)
    out.set(exposure.traced({ x: coarsePixel(i, width), y, width: 1, height: 1 }, 1).sums, SUMS * i);
  return out;
}
