import type { Piece } from '@maypole/core/piece/piece';
import { useEditor } from './store';

/** What follows from the piece alone: not read again while nothing but the playhead moves. */
export function useOfPiece<T>(read: (piece: Piece) => T): T {
  let known: { readonly piece: Piece; readonly value: T } | null = null;
  return useEditor(({ piece }) => {
    if (known?.piece !== piece) known = { piece, value: read(piece) };
    return known.value;
  });
}
