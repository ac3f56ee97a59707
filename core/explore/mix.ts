import type { Param, StoredValue } from '../declare/params';
import { clampPiece } from '../piece/clamp';
import type { Item, Piece } from '../piece/piece';
import { mapOwners, ownersOf } from '../piece/walk';
import { blend } from '../time/colours/space';
import type { MotionDoc } from '../time/motion';
import { isMoving } from '../time/value';
import { gapsOf } from './gaps';
import { swings } from './vary-value';
import { spread } from './spread';

/**
 * A piece between two variations of one: every value at its own share of the way; what cannot be interpolated comes
 * from either. A mixture that would not close is replaced by the nearer of the two.
 *
 * @param index number of the mixture: 0, 1, 2, …
 */
export function mixed(a: Piece, b: Piece, seed: number, index: number): Piece {
  const share = spread(seed);
  const others = new Map(ownersOf(b).map((o) => [o.item.id, o.item]));
  let j = 0;
  const lights = share(index, j++) < 0.5 ? a.scene.lights : b.scene.lights;
  const begun: Piece = {
    ...a,
    scene: { ...a.scene, lights },
    // Finishes with entirely different parts come whole from either.
    ribbons: a.ribbons.map((r) => {
      const other = b.ribbons.find((o) => o.id === r.id);
      const unlike = other && other.finishes[0]?.parts[0]?.id !== r.finishes[0]?.parts[0]?.id;
      return unlike && share(index, j++) < 0.5 ? { ...r, finishes: other.finishes } : r;
    }),
  };
  const out = mapOwners(begun, ({ item, params }): Item => {
    const other = others.get(item.id);
    if (!other || other === item) return item;
    if (other.kind !== item.kind)
      return share(index, j++) < 0.5 ? item : { ...item, kind: other.kind, values: other.values };
    let values: Record<string, StoredValue> | null = null;
    for (const [name, param] of Object.entries(params)) {
      const [from, to] = [item.values[name] ?? param.default, other.values[name] ?? param.default] as StoredValue[];
      if (JSON.stringify(from) === JSON.stringify(to)) continue;
      (values ??= { ...item.values })[name] = between(from, to, param, share(index, j++));
    }
    return values ? { ...item, values } : item;
  });
  const held = clampPiece(a, out);
  return gapsOf(held).size <= Math.max(gapsOf(a).size, gapsOf(b).size) ? held : share(index, 0) < 0.5 ? a : b;
}

function between(from: StoredValue, to: StoredValue, param: Param, share: number): StoredValue {
  if (param.type === 'vector' && Array.isArray(from) && Array.isArray(to))
    return from.map((x, k) =>
      between(x as StoredValue, to[k] as StoredValue, { ...param, type: 'number', default: param.default[k] }, share),
    ) as StoredValue;
  if (param.type === 'number' && typeof from === 'number' && typeof to === 'number' && !param.seeds) {
    const x = from + share * (to - from);
    return param.integer || param.counts ? Math.round(x) : Number((Math.round(x / param.step) * param.step).toFixed(6));
  }
  if (param.type === 'colour' && typeof from === 'string' && typeof to === 'string') return blend(from, to)(share);
  if (isMoving(from) && isMoving(to) && from.motion === to.motion && swings(from) && swings(to)) {
    const part = (name: 'low' | 'high') => Number((from[name] + share * (to[name] - from[name])).toFixed(4));
    return { ...(share < 0.5 ? from : to), low: part('low'), high: part('high') } as MotionDoc;
  }
  return share < 0.5 ? from : to;
}
