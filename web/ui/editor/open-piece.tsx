'use client';

import { readPiece } from '@maypole/core/piece/read';
import { Flex, Spinner } from '@chakra-ui/react';
import { startTransition, useEffect, useState } from 'react';
import { warmDrawer } from '@/view/drawer';
import type { StoredPiece } from '@/server/contract';
import { download, savePiece } from '../api';
import { Notice } from '../parts/notice';
import { PlainButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { backupOf, dropBackup } from '../state/backup';
import { keptUndo } from '../state/kept-undo';
import { useEditor } from '../state/store';
import { Editor } from './editor';

if (typeof window !== 'undefined') warmDrawer();

/** Opens a stored document: in the editor, or with a word on why it cannot be. */
export function OpenPiece({ stored, readOnly }: { stored: StoredPiece; readOnly: boolean }) {
  const [read] = useState(() => readPiece(stored.source));
  const [opened, setOpened] = useState(false);

  useEffect(() => {
    if (!read.ok) return;
    const { open } = useEditor.getState();
    open(stored.id, read.piece, stored.revision);
    useEditor.setState({ readOnly });
    const left = readOnly ? null : backupOf(stored.id);
    if (left && left.piece === null) {
      tellTrouble(
        `Changes that had not reached the server are kept in this browser, but cannot be read: ${left.trouble}`,
      );
      download(`${stored.id}.unsaved.maypole.json`, new Blob([left.source], { type: 'application/json' }));
    } else if (left && JSON.stringify(left.piece) !== JSON.stringify(read.piece)) {
      if (left.basedOn === stored.revision) {
        useEditor.getState().edit('Bring back unsaved work', () => left.piece);
        tell('Changes that had not reached the server are back.');
      } else {
        // The head has gone on since: the server keeps this beside it, and says so.
        void savePiece(stored.id, left.source, left.basedOn).then(
          (answer) => {
            if ('error' in answer)
              useEditor.setState({ save: 'conflict', conflict: { head: answer.head, kept: answer.kept } });
            dropBackup(stored.id);
          },
          () => undefined,
        );
      }
    } else if (left) dropBackup(stored.id);
    const past = readOnly ? [] : keptUndo(stored.id, useEditor.getState().piece);
    if (past.length > 0) useEditor.setState({ history: { past, future: [] } });
    // Made bit by bit, so that the page answers meanwhile.
    startTransition(() => setOpened(true));
  }, [read, stored, readOnly]);

  if (!read.ok)
    return (
      <Notice
        title={read.reason === 'newer' ? 'Made by a newer Maypole' : 'This piece cannot be read'}
        action={
          <PlainButton asChild>
            <a href={`/api/pieces/${stored.id}/file`}>Export it as it is</a>
          </PlainButton>
        }
      >
        {read.message} It is kept as it is; nothing has been changed.
      </Notice>
    );
  if (!opened)
    return (
      <Flex h="100vh" align="center" justify="center">
        <Spinner />
      </Flex>
    );
  return <Editor />;
}
