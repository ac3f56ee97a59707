import type { Piece } from '../piece/piece';

/** The piece with one ribbon as in another version: in its place, or at the end if it is gone. */
export function withRibbonOf(piece: Piece, other: Piece, ribbon: string): Piece {
  const old = other.ribbons.find((r) => r.id === ribbon);
  if (!old) return piece;
  const there = piece.ribbons.some((r) => r.id === ribbon);
  const ribbons = there ? piece.ribbons.map((r) => (r.id === ribbon ? old : r)) : [...piece.ribbons, old];
  return { ...piece, ribbons };
}
