import type { ColourParam, ColourStop, Evaluated, NumberParam, Params } from '../declare/params';
import { evaluateValues } from '../evaluate/values';
import type { PatternAt } from '../pattern/pattern-at';
import { patterns } from '../pattern/kinds/index';
import { layerParams, type LayerHow } from '../pattern/layer';
import { rampOf, type RampMix } from '../pattern/ramp';
import type { PatternDoc } from '../piece/piece';
import type { Clock } from '../time/loop';

/**
 * A layer at an unwrapped frame.
 *
 * @param factor from the unit of the value to that of the channel
 */
export function patternAt(doc: PatternDoc, target: NumberParam | ColourParam, factor: number, clock: Clock): PatternAt {
  const kind = patterns.get(doc.kind);
  const v = evaluateValues(layerParams(kind, target), doc.values, clock) as Evaluated<Params> & Record<string, unknown>;
  const values = Object.fromEntries(Object.keys(kind.params).map((name) => [name, v[name]]));
  const round = v.rampEnds === 'round';
  return {
    kind: doc.kind,
    values,
    ...(kind.noise ? { noise: kind.noise(values as Evaluated<Params>) } : {}),
    clock,
    how: v.layerHow as LayerHow,
    amount: (v.layerAmount as unknown as number) / 100,
    round,
    times: v.rampTimes as unknown as number,
    shift: (round ? v.rampShift : v.rampOffset) as unknown as number,
    to:
      target.type === 'colour'
        ? {
            type: 'colour',
            ramp: rampOf(v.rampStops as unknown as readonly ColourStop[], v.rampMix as RampMix, round),
          }
        : {
            type: 'number',
            low: factor * (v.rampLow as unknown as number),
            high: factor * (v.rampHigh as unknown as number),
          },
  };
}
