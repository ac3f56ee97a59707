'use client';

import type { Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { PieceSummary, SeveralEdit } from '@/contract/pieces';
import { editSeveral, createPiece, deletePiece, duplicatePiece, listPieces, restorePiece } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { noteStart } from '../state/first-turns';
import { takeIn } from './take-in';

/** What the shelf shows: all pieces, or those in the bin. */
export type View = 'all' | 'bin';

/**
 * The pieces of a shelf, and what can be done to them; each action tells what came of it.
 *
 * @param initial the most recently changed pieces
 * @param total number of pieces; the rest is asked for
 */
export function usePieces(initial: PieceSummary[], total: number) {
  const router = useRouter();
  const [pieces, setPieces] = useState(initial);
  const [view, setView] = useState<View>('all');
  /** Progress of an import; empty if there is none. */
  const [taking, setTaking] = useState('');

  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
  }, []);
  const refresh = useCallback(
    (which: View) => attempt(async () => setPieces(await listPieces(which === 'bin'))),
    [attempt],
  );
  const part = initial.length < total;
  useEffect(() => {
    if (part) void refresh('all');
  }, [part, refresh]);
  const show = (which: View) => {
    setView(which);
    void refresh(which);
  };

  const begin = (piece: Piece, start: string | null) =>
    attempt(async () => {
      const { id } = await createPiece(writePiece(piece));
      if (start) noteStart(id, start);
      router.push(`/piece/${id}`);
    });
  const importFiles = (list: readonly File[]) =>
    attempt(async () => {
      if (list.length === 0) return tellTrouble('There is no piece file in it; piece files end in .json.');
      const { taken, refused } = await takeIn(list, (done) =>
        setTaking(list.length > 1 ? `Taking in ${done + 1} of ${list.length}` : ''),
      );
      setTaking('');
      if (taken > 0) {
        tell(
          taken === 1 && list.length === 1 ? `${list[0].name} is on the shelf.` : `${taken} pieces are on the shelf.`,
        );
        await refresh('all');
        setView('all');
      }
      // Reports all problems; of many, the first three and their number.
      for (const words of refused.slice(0, 3)) tellTrouble(words);
      if (refused.length > 3) tellTrouble(`${refused.length - 3} more files could not be taken in.`);
    });
  const remove = (piece: PieceSummary) =>
    attempt(async () => {
      await deletePiece(piece.id);
      setPieces((list) => list.filter((p) => p.id !== piece.id));
      tell(`${piece.name} is in the bin.`, {
        label: 'Undo',
        onClick: () => void attempt(() => restorePiece(piece.id)).then(() => refresh('all')),
      });
    });
  const restore = (piece: PieceSummary) =>
    attempt(async () => {
      await restorePiece(piece.id);
      tell(`${piece.name} is back on the shelf.`);
      await refresh('bin');
    });
  const duplicate = (piece: PieceSummary) =>
    attempt(async () => {
      await duplicatePiece(piece.id);
      await refresh('all');
    });

  const together = (what: SeveralEdit, words: string, back?: SeveralEdit) =>
    attempt(async () => {
      await editSeveral(what);
      await refresh(view);
      tell(words, back && { label: 'Undo', onClick: () => void together(back, 'Taken back.') });
    });

  return {
    pieces,
    view,
    taking,
    show,
    refresh,
    begin,
    importFiles,
    remove,
    restore,
    duplicate,
    together,
    // Until all pieces are loaded, the total comes from the page itself.
    known: pieces === initial ? total : pieces.length,
  };
}
