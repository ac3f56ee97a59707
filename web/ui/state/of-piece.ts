import type { Piece } from '@maypole/core/piece/piece';
import { useEditor } from './store';

/** Derived from the piece alone: not recomputed while only the playhead moves. */
export function useOfPiece<T>(read: (piece: Piece) => T): T {
  let known: { readonly piece: Piece; readonly value: T } | null = null;
  return useEditor(({ piece }) => {
    if (known?.piece !== piece) known = { piece, value: read(piece) };
    return known.value;
  });
}
