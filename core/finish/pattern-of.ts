import type { ColourParam, ColourStop, Evaluated, NumberParam, Params } from '../declare/params';
import { evaluateValues } from '../time/values';
import type { PatternAt } from '../pattern/pattern-at';
import { patterns } from '../pattern/kinds/index';
import { layerParams, type LayerHow } from '../pattern/layer';
import { rampOf, type RampMix } from '../pattern/ramp';
import type { PatternDoc } from '../declare/items';
import type { Clock } from '../time/loop';

/** Evaluated values of any layer; a colour has stops and a mixing mode, a number its range. */
interface LayerValues {
  readonly [own: string]: unknown;
  readonly layerHow: LayerHow;
  readonly layerAmount: number;
  readonly rampEnds: 'hold' | 'round';
  readonly rampTimes: number;
  readonly rampShift: number;
  readonly rampOffset: number;
  readonly rampStops: readonly ColourStop[];
  readonly rampMix: RampMix;
  readonly rampLow: number;
  readonly rampHigh: number;
}

/**
 * A layer at an unwrapped frame.
 *
 * @param factor from the unit of the value to that of the channel
 */
export function patternAt(doc: PatternDoc, target: NumberParam | ColourParam, factor: number, clock: Clock): PatternAt {
  const kind = patterns.get(doc.kind);
  const v = evaluateValues(layerParams(kind, target), doc.values, clock) as object as LayerValues;
  const values = Object.fromEntries(Object.keys(kind.params).map((name) => [name, v[name]]));
  const round = v.rampEnds === 'round';
  return {
    kind: doc.kind,
    values,
    ...(kind.noise ? { noise: kind.noise(values as Evaluated<Params>) } : {}),
    ...(kind.image
      ? {
          image: {
            file: kind.image.file(values as Evaluated<Params>),
            own: target.type === 'colour' && kind.image.own(values as Evaluated<Params>),
          },
        }
      : {}),
    clock,
    how: v.layerHow,
    amount: v.layerAmount / 100,
    round,
    times: v.rampTimes,
    shift: round ? v.rampShift : v.rampOffset,
    to:
      target.type === 'colour'
        ? {
            type: 'colour',
            ramp: rampOf(v.rampStops, v.rampMix, round),
          }
        : {
            type: 'number',
            low: factor * v.rampLow,
            high: factor * v.rampHigh,
          },
  };
}
