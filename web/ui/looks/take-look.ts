import type { Used } from '@maypole/core/looks/look';
import type { Piece } from '@maypole/core/piece/piece';
import { tell } from '../parts/toasts';
import { useEditor } from '../state/store';

/** Reports what had to be dropped of something from elsewhere, if anything. */
export function tellDropped(dropped: number): void {
  if (dropped === 0) return;
  const what = dropped === 1 ? 'One value followed or named' : `${dropped} values followed or named`;
  tell(`${what} something that is not in this piece; ${dropped === 1 ? 'it stands' : 'they stand'} by themselves now.`);
}

/** Applies something kept to the piece, as one edit. */
export function takeLook(words: string, take: (piece: Piece) => Used): void {
  let dropped = 0;
  const made = useEditor.getState().edit(words, (piece) => {
    const used = take(piece);
    dropped = used.dropped;
    return used.piece;
  });
  if (made) tellDropped(dropped);
}
