import type { KeyDoc } from '@maypole/core/time/keys/key';

/** Maps moments and values to pixels of a curve. */
export interface CurveBox {
  readonly width: number;
  readonly height: number;
  /** First moment shown and moments from edge to edge, in loops. */
  readonly from: number;
  readonly span: number;
  readonly low: number;
  readonly high: number;
}

export const PAD = 14;

export function xOf(box: CurveBox, t: number): number {
  return ((t - box.from) / box.span) * box.width;
}

export function yOf(box: CurveBox, v: number): number {
  return box.height - PAD - ((v - box.low) / (box.high - box.low)) * (box.height - 2 * PAD);
}

export function momentAt(box: CurveBox, x: number): number {
  return box.from + (x / box.width) * box.span;
}

export function valueAtY(box: CurveBox, y: number): number {
  return box.low + ((box.height - PAD - y) / (box.height - 2 * PAD)) * (box.high - box.low);
}

/** A visible key, also in neighbouring loops. */
export interface SeenKey {
  readonly index: number;
  /** Loops away from where it is stored. */
  readonly loop: number;
  readonly x: number;
  readonly y: number;
}

/** All visible positions of keys. */
export function seenKeys(keys: readonly KeyDoc[], adds: number, box: CurveBox): SeenKey[] {
  const out: SeenKey[] = [];
  for (let loop = Math.floor(box.from) - 1; loop <= Math.ceil(box.from + box.span); loop++)
    keys.forEach((k, index) => {
      const t = k.at + loop;
      if (t >= box.from - 0.02 * box.span && t <= box.from + 1.02 * box.span)
        out.push({ index, loop, x: xOf(box, t), y: yOf(box, k.value + adds * loop) });
    });
  return out;
}

/** The visible key nearest to a screen position, within reach. */
export function keyNear(seen: readonly SeenKey[], x: number, y: number, reach = 10): SeenKey | null {
  let best: SeenKey | null = null;
  let least = reach;
  for (const k of seen) {
    const d = Math.hypot(k.x - x, k.y - y);
    if (d < least) [best, least] = [k, d];
  }
  return best;
}

/** A visible tangent handle. */
export interface SeenTangent extends SeenKey {
  readonly side: 'in' | 'out';
  readonly tipX: number;
  readonly tipY: number;
}

/** Tangents of the selected keys, where a free segment uses them. */
export function seenTangents(
  keys: readonly KeyDoc[],
  chosen: readonly number[],
  seen: readonly SeenKey[],
  box: CurveBox,
): SeenTangent[] {
  const marked = new Set(chosen);
  const [perLoop, perUnit] = [box.width / box.span, (box.height - 2 * PAD) / (box.high - box.low)];
  return seen.flatMap((s): SeenTangent[] => {
    if (!marked.has(s.index)) return [];
    const key = keys[s.index];
    const before = keys[(s.index + keys.length - 1) % keys.length];
    const tip = (t: readonly [number, number]) => ({ tipX: s.x + t[0] * perLoop, tipY: s.y - t[1] * perUnit });
    return [
      ...(key.to === 'free' && key.out ? [{ ...s, side: 'out' as const, ...tip(key.out) }] : []),
      ...(before.to === 'free' && key.in ? [{ ...s, side: 'in' as const, ...tip(key.in) }] : []),
    ];
  });
}
