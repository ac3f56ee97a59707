'use client';

import { Dialog, Portal, Text } from '@chakra-ui/react';
import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { useState } from 'react';
import { createPiece, loadPiece } from '../api';
import { PlainButton, StrongButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { momentWords } from '../state/around';
import { saveNow } from '../state/saving';
import { useEditor } from '../state/store';
import { MergeWords, useMerge, type Merge } from './merge';

/** Two tabs changed a piece: both versions are kept, and the user chooses which continues here. */
export function ConflictDialog() {
  const conflict = useEditor((s) => s.conflict);
  const [busy, setBusy] = useState(false);
  const attempt = (work: () => Promise<void>) => async () => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work; both versions are still kept.');
    } finally {
      setBusy(false);
    }
  };
  const takeOther = attempt(async () => {
    const { id } = useEditor.getState();
    const stored = await loadPiece(id);
    const read = readPiece(stored.source);
    if (!read.ok) throw new Error(read.message);
    useEditor.getState().open(id, read.piece, stored.revision);
    tell('The other version is open. Yours is kept beside it.');
  });
  const goOnWithMine = attempt(async () => {
    const { id } = useEditor.getState();
    const { revision } = await loadPiece(id);
    useEditor.setState({ revision, conflict: null, save: 'waiting' });
    await saveNow();
    if (useEditor.getState().save === 'saved') tell('Your version goes on. The other one is kept beside it.');
  });
  const asNewPiece = attempt(async () => {
    const { piece } = useEditor.getState();
    const made = await createPiece(
      writePiece({ ...piece, name: `${keepable(piece.name, LIMITS.nameOfPiece - 7)} (mine)` }),
    );
    useEditor.setState({ save: 'saved', conflict: null });
    window.location.assign(`/piece/${made.id}`);
  });

  const bringTogether = (merged: Merge) =>
    attempt(async () => {
      useEditor.setState({ revision: merged.head, conflict: null, save: 'waiting' });
      useEditor.getState().edit('Bring both together', () => merged.piece);
      await saveNow();
      if (useEditor.getState().save === 'saved') tell('Both are together. Each of the two is kept in the history.');
    });
  const merge = useMerge();
  const whose = conflict?.saved.by ?? 'Somebody, in another browser or tab,';

  return (
    <Dialog.Root
      motionPreset="none"
      open={conflict !== null}
      closeOnEscape={false}
      closeOnInteractOutside={false}
      role="alertdialog"
      placement="center"
    >
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content maxW="620px" bg="panel" color="ink" borderRadius="14px" borderWidth="1px" borderColor="line">
            <Dialog.Header pb="1">
              <Dialog.Title fontFamily="heading" fontSize="19px">
                Changed elsewhere
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Text lineHeight="1.55">
                {whose} saved this piece at {conflict && momentWords(conflict.saved.at)}, as version {conflict?.head},
                after you opened it here. Your version was kept as version {conflict?.kept}, and nothing was
                overwritten. Which one should go on?
              </Text>
              <MergeWords merge={merge} />
            </Dialog.Body>
            <Dialog.Footer flexWrap="wrap">
              <PlainButton disabled={busy} onClick={() => void takeOther()}>
                Open the other
              </PlainButton>
              <PlainButton disabled={busy} onClick={() => void asNewPiece()}>
                Mine as a new piece
              </PlainButton>
              {merge.merged ? (
                <>
                  <PlainButton disabled={busy} onClick={() => void goOnWithMine()}>
                    Go on with mine
                  </PlainButton>
                  <StrongButton disabled={busy} onClick={() => void bringTogether(merge.merged!)()}>
                    Bring both together
                  </StrongButton>
                </>
              ) : (
                <StrongButton disabled={busy} onClick={() => void goOnWithMine()}>
                  Go on with mine
                </StrongButton>
              )}
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
