import { sortKeys, usualTangent, type KeyDoc, type Segment } from './key';
import { trackOf } from './track';

/** Keys after an edit, and which of them are the ones that were meant. */
export interface KeysEdit {
  readonly keys: readonly KeyDoc[];
  readonly chosen: readonly number[];
}

/** Puts keys in order and says where the marked ones have gone. */
function ordered(keys: readonly KeyDoc[], marked: ReadonlySet<KeyDoc>): KeysEdit {
  const sorted = [...keys].sort((a, b) => a.at - b.at);
  return { keys: sorted, chosen: sorted.flatMap((k, i) => (marked.has(k) ? [i] : [])) };
}

/**
 * A key brought back into the loop: what is dragged over the seam comes in at the other side, at the
 * value it has there.
 *
 * @param at any real place; whole loops are taken off
 */
export function wrapped(key: KeyDoc, at: number, value: number, adds: number): KeyDoc {
  const loops = Math.floor(at);
  let place = at - loops;
  // The nearest place to 1 that can be told from it would be shown as the seam, and is it.
  if (place > 1 - 1e-9) place = 0;
  const whole = place === 0 && at - loops > 0.5 ? loops + 1 : loops;
  return { ...key, at: place, value: value - whole * adds };
}

/** The place of the nearest frame. */
export function snapped(at: number, frames: number): number {
  return Math.round(at * frames) / frames;
}

/** Moves the chosen keys in time (share of the loop) and value. */
export function moveKeys(
  keys: readonly KeyDoc[],
  chosen: readonly number[],
  by: { at: number; value: number },
  adds: number,
  snap = 0,
): KeysEdit {
  const picked = new Set(chosen);
  const marked = new Set<KeyDoc>();
  const out = keys.map((k, i) => {
    if (!picked.has(i)) return k;
    const at = k.at + by.at;
    const moved = wrapped(k, snap > 0 && by.at !== 0 ? snapped(at, snap) : at, k.value + by.value, adds);
    marked.add(moved);
    return moved;
  });
  return ordered(out, marked);
}

/** Stretches the chosen keys about a place and a value. Tangents go along. */
export function scaleKeys(
  keys: readonly KeyDoc[],
  chosen: readonly number[],
  about: { at: number; value: number },
  by: { at: number; value: number },
  adds: number,
): KeysEdit {
  const picked = new Set(chosen);
  const marked = new Set<KeyDoc>();
  const tangent = (t: readonly [number, number] | undefined): [number, number] | undefined =>
    t && [t[0] * Math.abs(by.at), t[1] * by.value];
  const out = keys.map((k, i) => {
    if (!picked.has(i)) return k;
    const scaled = { ...k, ...(k.in ? { in: tangent(k.in) } : {}), ...(k.out ? { out: tangent(k.out) } : {}) };
    const moved = wrapped(
      scaled,
      about.at + (k.at - about.at) * by.at,
      about.value + (k.value - about.value) * by.value,
      adds,
    );
    marked.add(moved);
    return moved;
  });
  return ordered(out, marked);
}

/** Takes keys away; one always stays. */
export function removeKeys(keys: readonly KeyDoc[], chosen: readonly number[]): KeysEdit {
  const gone = new Set(chosen);
  const left = keys.filter((_, i) => !gone.has(i));
  return { keys: left.length > 0 ? left : [keys[0]], chosen: [] };
}

/**
 * A new key at a place, on the curve as it is unless a value is given. It goes on in the way of the
 * segment it lies on; a free segment is cut in two of the same shape as nearly as cubics allow.
 */
export function addKey(keys: readonly KeyDoc[], adds: number, at: number, value?: number): KeysEdit {
  const track = trackOf(keys, adds);
  const here = track.at(at - Math.floor(at));
  const before = [...sortKeys(keys)].reverse().find((k) => k.at <= at) ?? keys[keys.length - 1];
  const key = wrapped(
    { at: 0, value: 0, to: before.to, ...(before.ease ? { ease: before.ease } : {}) },
    at,
    value ?? here.value,
    adds,
  );
  const shaped =
    key.to === 'free'
      ? { ...key, out: [0.05, here.slope * 0.05] as const, in: [-0.05, -here.slope * 0.05] as const }
      : key;
  return ordered([...keys, shaped], new Set([shaped]));
}

/** Puts copied keys in, the earliest of them at a place. */
export function pasteKeys(keys: readonly KeyDoc[], copied: readonly KeyDoc[], at: number, adds: number): KeysEdit {
  if (copied.length === 0) return { keys, chosen: [] };
  const first = Math.min(...copied.map((k) => k.at));
  const fresh = copied.map((k) => wrapped(k, at + k.at - first, k.value, adds));
  const places = new Set(fresh.map((k) => k.at));
  // A key that stands where one is put gives way to it.
  return ordered([...keys.filter((k) => !places.has(k.at)), ...fresh], new Set(fresh));
}

/** Gives the chosen keys another way to the next. Free segments begin with the tangents of a straight line. */
export function setSegment(
  keys: readonly KeyDoc[],
  chosen: readonly number[],
  to: Segment,
  adds: number,
): readonly KeyDoc[] {
  const picked = new Set(chosen);
  const next = (i: number): KeyDoc =>
    i + 1 < keys.length ? keys[i + 1] : { ...keys[0], at: keys[0].at + 1, value: keys[0].value + adds };
  const out = keys.map((k, i) => (picked.has(i) ? { ...k, to } : k));
  if (to !== 'free') return out;
  return out.map((k, i) => {
    let key = k;
    if (picked.has(i) && !key.out) key = { ...key, out: usualTangent(k, next(i)) };
    const before = (i + keys.length - 1) % keys.length;
    if (picked.has(before) && !key.in) {
      const from =
        i === 0 ? { ...keys[before], at: keys[before].at - 1, value: keys[before].value - adds } : keys[before];
      key = { ...key, in: usualTangent(k, from) };
    }
    return key;
  });
}

/** Drags a tangent. Unless they are broken the other one turns with it, keeping its length in time. */
export function setTangent(
  keys: readonly KeyDoc[],
  index: number,
  side: 'in' | 'out',
  to: readonly [number, number],
): readonly KeyDoc[] {
  const sign = side === 'out' ? 1 : -1;
  const t: readonly [number, number] = [sign * Math.max(0, sign * to[0]), to[1]];
  return keys.map((k, i) => {
    if (i !== index) return k;
    const other = side === 'out' ? k.in : k.out;
    if (k.broken || !other || t[0] === 0) return { ...k, [side]: t };
    return { ...k, [side]: t, [side === 'out' ? 'in' : 'out']: [other[0], (t[1] / t[0]) * other[0]] };
  });
}
