import { sortKeys, usualTangent, type KeyDoc, type Segment } from './key';
import { trackOf } from './track';

/** Keys after an edit, and the indices of the selected ones. */
export interface KeysEdit {
  readonly keys: readonly KeyDoc[];
  readonly chosen: readonly number[];
}

/** Sorts keys and finds the marked ones. */
function ordered(keys: readonly KeyDoc[], marked: ReadonlySet<KeyDoc>): KeysEdit {
  const sorted = [...keys].sort((a, b) => a.at - b.at);
  return { keys: sorted, chosen: sorted.flatMap((k, i) => (marked.has(k) ? [i] : [])) };
}

/**
 * Wraps a key into the loop: dragged over the seam it enters at the other side, at the value it has there.
 *
 * @param at any real position; whole loops are removed
 */
export function wrapped(key: KeyDoc, at: number, value: number, adds: number): KeyDoc {
  const loops = Math.floor(at);
  let place = at - loops;
  // A position indistinguishable from 1 is the seam.
  if (place > 1 - 1e-9) place = 0;
  const whole = place === 0 && at - loops > 0.5 ? loops + 1 : loops;
  return { ...key, at: place, value: value - whole * adds };
}

/** Snaps to the nearest frame. */
export function snapped(at: number, frames: number): number {
  return Math.round(at * frames) / frames;
}

/** Moves the selected keys in time (share of the loop) and value. */
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

/** Scales the selected keys about a position and a value, tangents included. */
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

/** Removes keys; one always stays. */
export function removeKeys(keys: readonly KeyDoc[], chosen: readonly number[]): KeysEdit {
  const gone = new Set(chosen);
  const left = keys.filter((_, i) => !gone.has(i));
  return { keys: left.length > 0 ? left : [keys[0]], chosen: [] };
}

/**
 * Inserts a key, on the existing curve unless a value is given. It continues with the interpolation of its segment; a
 * free segment is split into two of the same shape as nearly as cubics allow.
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

/** Inserts copied keys, the earliest at a position. */
export function pasteKeys(keys: readonly KeyDoc[], copied: readonly KeyDoc[], at: number, adds: number): KeysEdit {
  if (copied.length === 0) return { keys, chosen: [] };
  const first = Math.min(...copied.map((k) => k.at));
  const fresh = copied.map((k) => wrapped(k, at + k.at - first, k.value, adds));
  const places = new Set(fresh.map((k) => k.at));
  // A pasted key replaces one at the same position.
  return ordered([...keys.filter((k) => !places.has(k.at)), ...fresh], new Set(fresh));
}

/** Sets the interpolation of the selected keys. Free segments start with the tangents of a straight line. */
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

/** Drags a tangent. Unless broken, the other one rotates with it, keeping its length in time. */
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
