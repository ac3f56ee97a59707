'use client';

import { Text } from '@chakra-ui/react';
import { readPiece } from '@maypole/core/piece/read';
import { Users } from 'lucide-react';
import { loadPiece } from '../api';
import { PlainButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { momentWords, wordsFor } from '../state/around';
import { useEditor } from '../state/store';

/** Who else has the piece open, and whether a newer version was saved, with a link to it. */
export function Others() {
  const around = useEditor((s) => s.around);
  const newer = useEditor((s) => (s.conflict ? null : s.newer));
  const saved = useEditor((s) => s.save === 'saved');
  const words = [...new Set(around.map(wordsFor))].join(', ');
  return (
    <>
      {around.length > 0 && (
        <Text
          role="status"
          display="flex"
          alignItems="center"
          gap="1"
          fontSize="12px"
          color="muted"
          whiteSpace="nowrap"
          minW="0"
          maxW="150px"
          title={`Also open for ${words}`}
          aria-label={`Also open for ${words}`}
        >
          <Users size={14} style={{ flexShrink: 0 }} />
          <Text as="span" hideBelow="xl" overflow="hidden" textOverflow="ellipsis">
            {words}
          </Text>
        </Text>
      )}
      {newer && (
        <PlainButton
          size="2xs"
          h="26px"
          px="2"
          fontSize="12px"
          color="marigoldText"
          flexShrink={0}
          title={
            `Version ${newer.revision} was saved at ${momentWords(newer.at)}` +
            `${newer.by ? ` by ${newer.by}` : ''}. ${saved ? 'Show it here.' : 'Your edits meet it when they are saved.'}`
          }
          disabled={!saved}
          onClick={() => void showNewer()}
        >
          Newer version{newer.by ? ` by ${newer.by}` : ''}
        </PlainButton>
      )}
    </>
  );
}

/** Shows what was saved elsewhere; this page has nothing unsaved. Undo returns to what was here. */
async function showNewer(): Promise<void> {
  const { id } = useEditor.getState();
  try {
    const stored = await loadPiece(id);
    const read = readPiece(stored.source);
    if (!read.ok) throw new Error(read.message);
    const now = useEditor.getState();
    if (now.id !== id || now.save !== 'saved') return;
    now.edit('Take in the newer version', () => read.piece);
    useEditor.setState({ revision: stored.revision, save: 'saved', newer: null });
    tell('The newer version is shown. Undo brings back what was here.');
  } catch (error) {
    tellTrouble(error instanceof Error ? error.message : 'The newer version could not be opened.');
  }
}
