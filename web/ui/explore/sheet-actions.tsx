'use client';

import { writePiece } from '@maypole/core/piece/read';
import { Clapperboard, ImageDown, LayoutGrid } from 'lucide-react';
import { useState } from 'react';
import { PlainButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { useEditor } from '../state/store';
import { keepAs } from './history-store';
import { sheetToKeep } from './kept-sheet';
import { saveMovie, savePicture } from './sheet-files';
import { useSheet } from './sheet-store';
import { LOOPS } from './sheet-work';

/** Actions on the whole sheet: store it in the history, save it as a picture or a movie. */
export function SheetActions() {
  const { tiles, working, base } = useSheet();
  const readOnly = useEditor((s) => s.readOnly);
  const [busy, setBusy] = useState(false);
  const made = tiles.filter((t) => t.index >= 0).length;
  const strips = tiles.map((t) => t.strip);
  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'The sheet could not be saved.');
    }
    setBusy(false);
  };
  return (
    <>
      {!readOnly && (
        <PlainButton
          size="xs"
          disabled={made === 0 || (working !== null && working !== LOOPS) || busy}
          title="Keeps the sheet in the history of the piece"
          onClick={() => void attempt(() => keepSheet(made))}
        >
          <LayoutGrid size={14} /> Keep
        </PlainButton>
      )}
      <PlainButton
        size="xs"
        disabled={made === 0 || busy}
        onClick={() => void attempt(() => savePicture(strips, base.name))}
      >
        <ImageDown size={14} /> Picture
      </PlainButton>
      <PlainButton
        size="xs"
        disabled={made === 0 || working !== null || busy}
        title={working === null ? 'An MP4 of one round' : 'Once all loops are drawn'}
        onClick={() => void attempt(() => saveMovie(strips, base))}
      >
        <Clapperboard size={14} /> {busy ? 'Saving' : 'Movie'}
      </PlainButton>
    </>
  );
}

/** Stores the sheet with the version of the piece that it belongs to. */
async function keepSheet(made: number): Promise<void> {
  const { id, piece } = useEditor.getState();
  const sheet = useSheet.getState();
  const called = `${made} variations, seed ${sheet.seed}`;
  const source = writePiece({ ...sheet.base, name: piece.name });
  if (await keepAs(id, source, called, sheetToKeep(sheet))) tell(`“${called}” is kept in the history.`);
}
