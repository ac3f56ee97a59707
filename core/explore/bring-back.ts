import type { Piece } from '../piece/piece';
import { mapOwners, ownersOf } from '../piece/walk';

/** The piece with one value as in another version; unchanged if either lacks it. */
export function withValueOf(piece: Piece, other: Piece, item: string, param: string): Piece {
  const old = ownersOf(other).find((o) => o.item.id === item);
  if (!old) return piece;
  return mapOwners(piece, ({ item: now }) => {
    if (now.id !== item || now.kind !== old.item.kind) return now;
    const value = old.item.values[param];
    if (value !== undefined) return { ...now, values: { ...now.values, [param]: value } };
    // It had its default.
    const { [param]: _, ...values } = now.values;
    return { ...now, values };
  });
}

/** The piece with one ribbon as in another version: in its place, or at the end if it is gone. */
export function withRibbonOf(piece: Piece, other: Piece, ribbon: string): Piece {
  const old = other.ribbons.find((r) => r.id === ribbon);
  if (!old) return piece;
  const there = piece.ribbons.some((r) => r.id === ribbon);
  const ribbons = there ? piece.ribbons.map((r) => (r.id === ribbon ? old : r)) : [...piece.ribbons, old];
  return { ...piece, ribbons };
}
