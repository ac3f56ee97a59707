import { clampedValue } from '../piece/clamp';
import { hexOfLab, labOf } from '../time/colours/space';
import type { MotionDoc } from '../time/motion';
import { motionKind } from '../time/motions/index';
import type { NumberParam, VectorParam } from '../declare/params';

/** Number of seeds tried. */
const SEEDS = 1000;
/** Largest factor on a size at full reach, and largest share of a number's range up and down. */
const [TIMES, SHARE] = [3.5, 0.45];

type Numeric = NumberParam | VectorParam;

/**
 * A number near another, within its row's range.
 *
 * @param u selects it, 0…1; ½ is the number itself, except for seeds
 * @param reach how far at most, 0…1
 */
export function variedNumber(value: number, param: Numeric, u: number, reach: number): number {
  if (param.type === 'number' && param.seeds) return Math.floor(u * SEEDS);
  const [low, high] = within(value, param, reach);
  const whole = param.integer || (param.type === 'number' && param.counts);
  // Positive values vary by factors, so that half and double are equally near.
  const x =
    low > 0 && high / low > 1.01
      ? low * (high / low) ** skewed(u, Math.log(value / low) / Math.log(high / low))
      : low + (high - low) * skewed(u, high > low ? (value - low) / (high - low) : 0.5);
  const round = whole ? Math.round(x) : Number((Math.round(x / param.step) * param.step).toFixed(6));
  return Math.max(param.min, Math.min(param.max, round));
}

/** Maps 0…1 to 0…1 piecewise linearly, with ½ at `middle`. */
function skewed(u: number, middle: number): number {
  return u < 0.5 ? 2 * u * middle : middle + (2 * u - 1) * (1 - middle);
}

function within(value: number, param: Numeric, reach: number): [number, number] {
  const [soft, most] = [Math.min(param.soft[0], value), Math.max(param.soft[1], value)];
  if (param.type === 'number' && param.counts) {
    const by = Math.max(1, Math.round(3 * reach));
    return [Math.max(soft, value - by), Math.min(most, value + by)];
  }
  if (param.cyclic) return [value - (reach * param.cyclic) / 2, value + (reach * param.cyclic) / 2];
  if (param.min >= 0 && value > 0) {
    const times = 1 + (TIMES - 1) * reach;
    const by = param.integer ? 1 : 0;
    const least = param.integer ? Math.max(1, param.min) : param.min;
    return [Math.max(least, Math.min(value / times, value - by)), Math.min(most, Math.max(value * times, value + by))];
  }
  const by = SHARE * reach * (most - soft);
  return [Math.max(soft, value - by), Math.min(most, value + by)];
}

/** A colour near another: hue, lightness and chroma in OKLab. At full reach any hue is possible. */
export function variedColour(hex: string, u: readonly [number, number, number], reach: number): string {
  const [l, a, b] = labOf(hex);
  const chroma = Math.hypot(a, b);
  // Grey stays near grey until the reach is large.
  const tinted = chroma < 0.02 ? chroma + 0.1 * reach * u[1] : chroma * (1 + reach * (u[1] - 0.5));
  const hue = Math.atan2(b, a) + reach * Math.PI * (2 * u[0] - 1);
  const light = Math.max(0.04, Math.min(0.97, l + 0.36 * reach * (u[2] - 0.5)));
  return hexOfLab(light, tinted * Math.cos(hue), tinted * Math.sin(hue));
}

/** Whether a motion has a range that may be wider or narrower. */
export function swings(motion: MotionDoc): motion is MotionDoc & { low: number; high: number } {
  const { low, high } = motion as { low?: unknown; high?: unknown };
  const { ofValue } = motionKind(motion.motion);
  return ofValue.low === 'value' && ofValue.high === 'value' && typeof low === 'number' && typeof high === 'number';
}

/** A motion with a wider or narrower range around the same middle; it closes as before. */
export function variedSwing(motion: MotionDoc, param: NumberParam, u: number, reach: number): MotionDoc {
  if (!swings(motion)) return motion;
  const middle = (motion.low + motion.high) / 2;
  const half = ((motion.high - motion.low) / 2) * 2 ** (2 * reach * (2 * u - 1));
  const wider = { ...motion, low: rounded(middle - half), high: rounded(middle + half) } as MotionDoc;
  return clampedValue(wider, param, motion) as MotionDoc;
}

/** A motion that starts elsewhere in its cycle. */
export function variedPhase(motion: MotionDoc, u: number, reach: number): MotionDoc {
  const phase = ((motion as { phase?: number }).phase ?? 0) + reach * (u - 0.5);
  return { ...motion, phase: rounded(phase - Math.floor(phase)) } as MotionDoc;
}

const rounded = (x: number) => Number(x.toFixed(3));
