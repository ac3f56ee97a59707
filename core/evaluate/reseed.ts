import type { Evaluated, Params } from '../declare/params';
import { mix32 } from '../time/chance';

/**
 * Values with the seeds of chance told apart by the step's own chance, so that two steps with the
 * same seed do not throw the same numbers. A step without a chance of its own throws by its seed
 * alone, as all did once.
 */
export function reseeded<P extends Params>(params: P, values: Evaluated<P>, chance = 0): Evaluated<P> {
  if (chance === 0) return values;
  let out: Record<string, unknown> | null = null;
  for (const name in params) {
    const p = params[name];
    if (p.type !== 'number' || p.seeds !== 'chance') continue;
    out ??= { ...values };
    // 24 bits, so that what is reckoned from a seed stays exact.
    out[name] = mix32(Math.imul((values[name] as number) + 1, 0x9e3779b1) ^ mix32(chance)) >>> 8;
  }
  return (out ?? values) as Evaluated<P>;
}
