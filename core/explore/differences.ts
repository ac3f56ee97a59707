import { changesBetween, withChange } from '../piece/paths';
import type { Piece } from '../piece/piece';
import { bookOf, changeWords, type Difference } from './difference-words';
import { liken } from './liken';

export type { Difference };

/** What differs in `b` from `a`, in the order of the screen; without values that have no effect in `b`. */
export function differences(a: Piece, b: Piece): Difference[] {
  const [before, after] = [bookOf(a), bookOf(b)];
  const order = new Map([...new Set([...after.owners.keys(), ...before.owners.keys()])].map((id, i) => [id, i]));
  const rank = ({ item }: Difference) => (item === undefined ? -1 : order.get(item)!);
  return changesBetween(a, b)
    .flatMap((change) => changeWords(change, before, after) ?? [])
    .sort((x, y) => rank(x) - rank(y));
}

/** The same for unrelated pieces: if they share no ribbon, similar things are matched. */
export function comparePieces(a: Piece, b: Piece): Difference[] {
  const related = a.ribbons.some((r) => b.ribbons.some((o) => o.id === r.id));
  return differences(a, related ? b : liken(a, b));
}

/** The piece with one thing that differs as it is in another version. */
export const broughtBack = (now: Piece, then: Piece, { path }: Difference): Piece => withChange(now, then, path);
