import type { Evaluated } from '../declare/params';
import { evaluateValues } from '../time/values';
import type { Values } from '../declare/items';
import { renderParams } from './rendering';

export type RenderSettings = Evaluated<typeof renderParams>;

/** The settings of a piece's rendering as plain values. */
export function renderSettings(values: Values): RenderSettings {
  return evaluateValues(renderParams, values, { frame: 0, frames: 1 });
}

/** The frames that settings ask for in a loop of so many, in playing order. */
export function framesWanted(v: Pick<RenderSettings, 'range' | 'from' | 'to'>, frames: number): number[] {
  if (v.range === 'all') return Array.from({ length: frames }, (_, i) => i);
  const [first, last] = [v.from, v.to].map((f) => Math.min(f, frames - 1)).sort((a, b) => a - b);
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}
