import { vec3 } from '../maths/vec3';
import type { NumberValue, Param, Params, StoredValue, Unit } from '../declare/params';
import { colourMotionKind } from '../time/colours/index';
import { MAX_FRAMES } from '../time/loop';
import type { MotionDoc } from '../time/motion';
import { motionKind } from '../time/motions/index';
import { isMoving } from '../time/value';
import type { Piece, Values } from './piece';
import { mapOwners } from './walk';

/** Units that contain the loop, and the power of its length with which their values scale. */
const POWERS: Partial<Record<Unit, 1 | -1>> = { '/loop': 1, 'm/loop': 1, loops: -1 };

/**
 * The power of the loop's length with which a value scales: as declared, or by its unit; 1 for counts per loop, −1 for
 * durations in loops, 0 for everything else.
 */
export function powerOf(p: Param): number {
  if (p.type !== 'number' && p.type !== 'vector') return 0;
  return p.perLoop ?? POWERS[p.unit] ?? (p.type === 'number' && p.counts ? 1 : 0);
}

function grown(settings: MotionDoc, params: Params, times: number): MotionDoc {
  const changed = Object.entries(params)
    .filter(([name, p]) => powerOf(p) !== 0 && settings[name] !== undefined)
    .map(([name, p]) => [
      name,
      Math.min((settings[name] as number) * times ** powerOf(p), p.type === 'number' ? p.max : Infinity),
    ]);
  return { ...settings, ...Object.fromEntries(changed) };
}

function longerMotion(motion: MotionDoc, times: number): MotionDoc {
  const { timing } = motion;
  const kind = motionKind(motion.motion);
  // A motion that rests for a share of the loop rests as often as before: it is repeated.
  const turns = kind.turns && !((motion.rest as number) > 0);
  let out = turns ? grown(motion, kind.params, times) : motion;
  const again = turns || kind.goesOn?.(motion) ? 1 : times;
  if (timing || again > 1)
    out = {
      ...out,
      timing: {
        ...timing,
        times: (timing?.times ?? 1) * again,
        ...(timing?.shift ? { shift: timing.shift / times } : {}),
      },
    };
  if (motion.layers)
    out = { ...out, layers: motion.layers.map((l) => ({ ...l, motion: longerMotion(l.motion, times) })) };
  return out;
}

function longerNumber(value: NumberValue, times: number, p: Param): NumberValue {
  const power = powerOf(p);
  const { min, max } = p as { min: number; max: number };
  const scale = power !== 0 ? (x: number) => Math.max(min, Math.min(max, x * times ** power)) : (x: number) => x;
  if (!isMoving(value)) return scale(value);
  const longer = longerMotion(value, times);
  if (power === 0) return longer;
  const ends = Object.keys(motionKind(value.motion).ofValue).filter((setting) => typeof value[setting] === 'number');
  return { ...longer, ...Object.fromEntries(ends.map((setting) => [setting, scale(value[setting] as number)])) };
}

function longerValues(params: Params, values: Values, times: number): Values {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]): [string, StoredValue] => {
      const p = params[name];
      if (p?.type === 'number') return [name, longerNumber(value as NumberValue, times, p)];
      if (p?.type === 'vector')
        return [name, vec3((k) => longerNumber((value as readonly NumberValue[])[k], times, p))];
      if (p?.type === 'colour' && isMoving(value))
        return [name, grown(value, colourMotionKind(value.motion).params, times)];
      return [name, value];
    }),
  );
}

/**
 * The piece in a loop a whole number of times as long, at the same speed: turns and rates per loop grow, so that two
 * and a half turns become five.
 *
 * @param times a whole number ≥ 1
 * @throws RangeError if the loop would exceed MAX_FRAMES
 */
export function lengthenLoop(piece: Piece, times: number): Piece {
  const frames = piece.loop.frames * times;
  if (!Number.isInteger(times) || times < 1 || frames > MAX_FRAMES)
    throw new RangeError(
      `A loop of ${piece.loop.frames} frames cannot be made ${times} times as long; the most is ${MAX_FRAMES} frames.`,
    );
  const longer = mapOwners(piece, ({ item, params, owner }) =>
    owner.type === 'output' || owner.type === 'render'
      ? item
      : { ...item, values: longerValues(params, item.values, times) },
  );
  return { ...longer, loop: { ...piece.loop, frames } };
}
