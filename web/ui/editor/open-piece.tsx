'use client';

import { readPiece } from '@maypole/core/piece/read';
import { Flex, Spinner } from '@chakra-ui/react';
import { startTransition, useEffect, useState } from 'react';
import { warmRenderer } from '@/view/stage/drawer';
import type { StoredPiece } from '@/contract/pieces';
import { Notice } from '../parts/notice';
import { PlainButton } from '../parts/buttons';
import { backupsOf } from '../state/backup';
import { keptUndo } from '../state/kept-undo';
import { useEditor } from '../state/store';
import { Editor } from './editor';
import { bringLeft } from './bring-left';

if (typeof window !== 'undefined') warmRenderer();

/** Opens a stored document in the editor, or explains why it cannot. */
export function OpenPiece({ stored, readOnly }: { stored: StoredPiece; readOnly: boolean }) {
  const [read] = useState(() => readPiece(stored.source));
  const [opened, setOpened] = useState(false);

  useEffect(() => {
    if (!read.ok) return;
    const { piece } = read;
    let left = false;
    const open = async () => {
      useEditor.getState().open(stored.id, piece, stored.revision);
      useEditor.setState({ readOnly });
      // Sends what earlier pages left unsaved to the server first, by their own saving code.
      if (!readOnly && backupsOf(stored.id).length > 0) await bringLeft(stored, piece);
      if (left) return;
      const past = readOnly ? [] : keptUndo(stored.id, useEditor.getState().piece);
      if (past.length > 0) useEditor.setState({ history: { past, future: [] } });
      // Mounted in steps, so that the page responds meanwhile.
      startTransition(() => setOpened(true));
    };
    void open();
    return () => void (left = true);
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
