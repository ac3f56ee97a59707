import type { Piece } from '../piece/piece';
import { mapOwners, ownersOf } from '../piece/walk';

/** The piece with one value as it is in another version of it; the same piece where either has no such value. */
export function withValueOf(piece: Piece, other: Piece, item: string, param: string): Piece {
  const old = ownersOf(other).find((o) => o.item.id === item);
  if (!old) return piece;
  return mapOwners(piece, ({ item: now }) => {
    if (now.id !== item || now.kind !== old.item.kind) return now;
    const value = old.item.values[param];
    if (value !== undefined) return { ...now, values: { ...now.values, [param]: value } };
    // It stood at what it is declared with.
    const { [param]: _, ...values } = now.values;
    return { ...now, values };
  });
}

/** The piece with one ribbon as it is in another version: in its place, or as the last where it is gone by now. */
export function withRibbonOf(piece: Piece, other: Piece, ribbon: string): Piece {
  const old = other.ribbons.find((r) => r.id === ribbon);
  if (!old) return piece;
  const there = piece.ribbons.some((r) => r.id === ribbon);
  const ribbons = there ? piece.ribbons.map((r) => (r.id === ribbon ? old : r)) : [...piece.ribbons, old];
  return { ...piece, ribbons };
}
