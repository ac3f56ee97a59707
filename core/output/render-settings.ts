import type { Evaluated } from '../declare/params';
import { evaluateValues } from '../time/values';
import type { Values } from '../declare/items';
import { LIMITS } from '../declare/limits';
import type { PixelSize } from './kind';
import { renderParams } from './rendering';

export type RenderSettings = Evaluated<typeof renderParams>;

/** The settings of a piece's rendering as plain values. */
export function renderSettings(values: Values): RenderSettings {
  return evaluateValues(renderParams, values, { frame: 0, frames: 1 });
}

/** Least pixels of a side. */
const LEAST = 16;

/**
 * Pixels of the files that a piece is delivered as: its format by the size that the delivery asks for. Both sides stay
 * even where those of the format are, since most encoders of movies want them so.
 */
export function deliveredSize({ format, render }: Delivered): PixelSize {
  const { scale } = renderSettings(render.values);
  if (scale === 100) return format;
  const even = format.width % 2 === 0 && format.height % 2 === 0 ? 2 : 1;
  const side = (pixels: number) => {
    const scaled = even * Math.round((pixels * scale) / 100 / even);
    return Math.min(LIMITS.side.most, Math.max(LEAST, scaled));
  };
  return { width: side(format.width), height: side(format.height) };
}

interface Delivered {
  readonly format: PixelSize;
  readonly render: { readonly values: Values };
}

/** The frames that settings ask for in a loop of so many, in playing order. */
export function framesWanted(v: Pick<RenderSettings, 'range' | 'from' | 'to'>, frames: number): number[] {
  if (v.range === 'all') return Array.from({ length: frames }, (_, i) => i);
  const [first, last] = [v.from, v.to].map((f) => Math.min(f, frames - 1)).sort((a, b) => a - b);
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}
