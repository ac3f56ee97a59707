import type { Evaluated, Params } from '../declare/params';
import { mix32 } from '../time/chance';

/**
 * Values with their seeds mixed with the step's own chance, so that two steps with the same seed differ. A step without
 * a chance of its own uses its seed alone, as early versions did.
 */
export function reseeded<P extends Params>(params: P, values: Evaluated<P>, chance = 0): Evaluated<P> {
  if (chance === 0) return values;
  let out: Record<string, unknown> | null = null;
  for (const name in params) {
    const p = params[name];
    if (p.type !== 'number' || p.seeds !== 'chance') continue;
    out ??= { ...values };
    // 24 bits, so that arithmetic on a seed stays exact.
    out[name] = mix32(Math.imul((values[name] as number) + 1, 0x9e3779b1) ^ mix32(chance)) >>> 8;
  }
  return (out ?? values) as Evaluated<P>;
}
