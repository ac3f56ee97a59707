import type { ColourValue, Evaluated, Param, Params, Points, NumberValue } from '../declare/params';
import type { Values } from '../declare/items';
import { evaluateColour } from './colours/index';
import type { Clock } from './loop';
import { evaluateNumber } from './value';

/** Held to the hard limits, and whole where the parameter is. */
function settle(x: number, param: { min: number; max: number; integer: boolean }): number {
  const v = param.integer ? Math.round(x) : x;
  // Sums and products of motions may run over all bounds; no step is to be given what is no number.
  if (v !== v) return param.min > 0 ? param.min : 0;
  return v < param.min ? param.min : v > param.max ? param.max : v;
}

/** One stored value at a moment. */
export function evaluateParam(param: Param, stored: unknown, clock: Clock): unknown {
  if (param.type === 'number') return settle(evaluateNumber(stored as NumberValue, clock, param.cyclic), param);
  if (param.type === 'vector')
    return (stored as readonly NumberValue[]).map((v) => settle(evaluateNumber(v, clock, param.cyclic), param));
  if (param.type === 'colour') return evaluateColour(stored as ColourValue, clock);
  return stored as string | boolean | Points;
}

/** All values of a step, finish or scene part at an unwrapped frame. */
export function evaluateValues<P extends Params>(params: P, values: Values, clock: Clock): Evaluated<P> {
  const out: Record<string, unknown> = {};
  for (const name in params) {
    const param = params[name];
    const stored = values[name];
    // Rows that are left out of a document are many, and stand still.
    out[name] =
      stored === undefined && param.sparse ? param.default : evaluateParam(param, stored ?? param.default, clock);
  }
  return out as Evaluated<P>;
}
