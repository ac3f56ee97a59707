import type { Evaluated, Param, Params, NumberValue } from '../declare/params';
import type { Values } from '../piece/piece';
import type { Clock } from '../time/loop';
import { evaluateNumber } from '../time/value';

/** Held to the hard limits, and whole where the parameter is. */
function settle(x: number, param: { min: number; max: number; integer: boolean }): number {
  const v = param.integer ? Math.round(x) : x;
  return v < param.min ? param.min : v > param.max ? param.max : v;
}

/** One stored value at a moment. */
export function evaluateParam(param: Param, stored: unknown, clock: Clock): number | string | boolean | readonly number[] {
  if (param.type === 'number') return settle(evaluateNumber(stored as NumberValue, clock), param);
  if (param.type === 'vector') return (stored as readonly NumberValue[]).map((v) => settle(evaluateNumber(v, clock), param));
  return stored as string | boolean;
}

/** All values of a step, finish or scene part at an unwrapped frame. */
export function evaluateValues<P extends Params>(params: P, values: Values, clock: Clock): Evaluated<P> {
  const out: Record<string, unknown> = {};
  for (const name in params) {
    const stored = values[name] ?? params[name].default;
    out[name] = evaluateParam(params[name], stored, clock);
  }
  return out as Evaluated<P>;
}
