import { keepable, LIMITS } from '../declare/limits';
import { vec3 } from '../maths/vec3';
import type { NumberParam, Param, StoredValue, VectorParam } from '../declare/params';
import { MAX_FPS, MAX_FRAMES, MIN_FPS } from '../time/loop';
import type { KeyDoc } from '../time/keys/key';
import type { LayerDoc, MotionDoc } from '../time/motion';
import { motionKind } from '../time/motions/index';
import { isMoving } from '../time/value';
import { layerTarget } from './motion-faults';
import type { Piece, Values } from './piece';
import { paramFaults } from './value-schema';
import { mapOwners, ownersOf } from './walk';

type Range = Pick<NumberParam | VectorParam, 'min' | 'max' | 'integer'>;

function clamped(x: unknown, { min, max, integer }: Range, otherwise: number): number {
  if (typeof x !== 'number' || Number.isNaN(x)) return Math.max(min, Math.min(max, otherwise));
  const within = Math.max(min, Math.min(max, x));
  return integer ? Math.round(within) : within;
}

/** A motion with its range, gains and keys clamped to the value's limits. */
function clampedMotion(motion: MotionDoc, range: Range): MotionDoc {
  const { params, ofValue } = motionKind(motion.motion);
  const span = range.max - range.min;
  const out: Record<string, unknown> = { ...motion };
  for (const [name, p] of Object.entries(params)) {
    if (out[name] === undefined || p.type !== 'number') continue;
    const of = ofValue[name];
    const limits =
      of === 'value' ? { ...range, integer: false } : of === 'change' ? { min: -span, max: span, integer: false } : p;
    out[name] = clamped(out[name], limits, p.default);
  }
  if (Array.isArray(out.keys))
    out.keys = (out.keys as KeyDoc[]).map((k) => ({ ...k, value: clamped(k.value, { ...range, integer: false }, 0) }));
  if (motion.layers)
    out.layers = motion.layers.map((l): LayerDoc => ({
      ...l,
      motion: clampedMotion(l.motion, { ...layerTarget(range, l.how), integer: false }),
    }));
  return out as MotionDoc;
}

/**
 * The nearest value that a document may hold: itself if sound, numbers clamped, and otherwise what was there before.
 *
 * @param before the sound value it replaces
 */
export function clampedValue(value: StoredValue, param: Param, before: StoredValue = param.default): StoredValue {
  if (paramFaults(value, param).length === 0) return value;
  const held = nearest(value, param);
  return held !== undefined && paramFaults(held, param).length === 0
    ? held
    : paramFaults(before, param).length === 0
      ? before
      : param.default;
}

function nearest(value: StoredValue, param: Param): StoredValue | undefined {
  if (param.type === 'number') {
    if (!isMoving(value)) return clamped(value, param, param.default);
    return param.moves ? clampedMotion(value, param) : undefined;
  }
  if (param.type === 'vector' && Array.isArray(value))
    return vec3((k) =>
      nearest(value[k] as StoredValue, { ...param, type: 'number', default: param.default[k] } as NumberParam),
    ) as StoredValue;
  if (param.type === 'text' && typeof value === 'string') return keepable(value, param.max);
  return undefined;
}

/**
 * The piece after an edit, with every changed value clamped to what a document may hold, so that no control can make
 * what saving would refuse. Unchanged values are not visited.
 */
export function clampPiece(before: Piece, after: Piece): Piece {
  const known = before.ribbons
    ? new Map(ownersOf(before).map((o) => [o.item.id, o.item.values]))
    : new Map<string, Values>();
  const held = mapOwners(after, ({ item, params }) => {
    const old = known.get(item.id);
    if (old === item.values) return item;
    let values: Record<string, StoredValue> | null = null;
    for (const name in item.values) {
      const [value, param] = [item.values[name], params[name]];
      if (!param || (old && old[name] === value)) continue;
      const sound = clampedValue(value, param, old?.[name]);
      if (sound !== value) (values ??= { ...item.values })[name] = sound;
    }
    return values ? { ...item, values } : item;
  });
  const { loop, format } = held;
  const name = keepable(held.name, LIMITS.nameOfPiece) || before.name;
  const names = held.ribbons.map((r) => keepable(r.name, LIMITS.nameOfRibbon));
  const ribbons = held.ribbons.every((r, i) => r.name === names[i])
    ? held.ribbons
    : held.ribbons.map((r, i) => ({ ...r, name: names[i] }));
  const side = (x: number) => clamped(x, { min: LIMITS.side.least, max: LIMITS.side.most, integer: true }, 1080);
  const soundLoop = {
    frames: clamped(loop.frames, { min: 1, max: MAX_FRAMES, integer: true }, 100),
    fps: clamped(loop.fps, { min: MIN_FPS, max: MAX_FPS, integer: false }, 25),
  };
  const soundFormat = { width: side(format.width), height: side(format.height) };
  const same =
    name === held.name &&
    ribbons === held.ribbons &&
    soundLoop.frames === loop.frames &&
    soundLoop.fps === loop.fps &&
    soundFormat.width === format.width &&
    soundFormat.height === format.height;
  return same ? held : { ...held, name, ribbons, loop: soundLoop, format: soundFormat };
}
