'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { PieceSummary } from '@/contract/pieces';
import { listPieces } from '../api';
import { whenWords } from '../explore/when-words';
import { openPast, usePast } from '../explore/history-store';
import { SelectField } from '../fields/select-field';
import { useEditor } from '../state/store';
import { putOnSide, type Side, type Source } from './compare-store';

/** Most unnamed saves offered, newest first. */
const RECENT = 30;

/** Chooses what a side shows: the present piece, a save, a take, or another piece. */
export function SidePicker({ at, side }: { at: 0 | 1; side: Side }) {
  const id = useEditor((s) => s.id);
  const list = usePast((s) => (s.id === id ? s.list : null));
  const [pieces, setPieces] = useState<readonly PieceSummary[]>([]);
  useEffect(() => {
    if (usePast.getState().id !== id) void openPast(id);
    listPieces().then(setPieces, () => undefined);
  }, [id]);
  const saves = list ?? [];
  const options: { value: Source; title: string }[] = [
    { value: 'now', title: 'Now' },
    ...saves.filter((r) => r.mark).map((r) => ({ value: `save:${r.number}` as const, title: r.mark! })),
    ...saves
      .filter((r) => !r.mark)
      .slice(0, RECENT)
      .map((r) => ({ value: `save:${r.number}` as const, title: `Save of ${whenWords(r.createdAt)}` })),
    ...pieces
      .filter((p) => p.id !== id && !p.trouble)
      .map((p) => ({ value: `piece:${p.id}` as const, title: `Piece: ${p.name}` })),
  ];
  const known = options.some((o) => o.value === side.source);
  return (
    <Box w="230px">
      <SelectField
        label={at === 0 ? 'First' : 'Second'}
        value={side.source}
        options={known ? options : [...options, { value: side.source, title: side.piece.name }]}
        onChange={(value) => void putOnSide(at, value as Source)}
      />
    </Box>
  );
}
