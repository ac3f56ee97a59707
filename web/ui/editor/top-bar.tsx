'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import {
  CircleAlert,
  Check,
  Film,
  History as HistoryIcon,
  LayoutGrid,
  LoaderCircle,
  Redo2,
  Search,
  SlidersHorizontal,
  Undo2,
} from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';
import { PictureButton, StrongButton } from '../parts/buttons';
import { openSheet } from '../explore/sheet-store';
import { useCommandField } from '../find/command-field';
import { goesOn, shareOf, useRenders } from '../deliver/renders';
import { verdictOf } from '../state/derived';
import { useEditor, type SaveState } from '../state/store';
import { LoopField } from './loop-field';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'Saved',
  waiting: 'Saving…',
  saving: 'Saving…',
  offline: 'Not saved: server away',
  full: 'Not saved: disk full',
  'signed-out': 'Not saved: sign in again',
  refused: 'Not saved: refused',
  conflict: 'Two versions',
};

export function TopBar() {
  const drawer = useEditor((s) => s.drawer);
  return (
    <Flex
      as="header"
      h="52px"
      flexShrink={0}
      align="center"
      px="4"
      gap="3"
      borderBottomWidth="1px"
      borderColor="line"
      bg="panel"
    >
      <Link href="/" aria-label="Back to the shelf" title="Back to the shelf">
        <Logo />
      </Link>
      <PieceName />
      <SaveMark />
      <Box flex="1" />
      <LoopField />
      <SeamChip />
      <Flex gap="1" ml="1">
        <UndoRedo />
        <PictureButton label="Find and do (Ctrl K)" onClick={() => useCommandField.setState({ open: true })}>
          <Search size={17} />
        </PictureButton>
        <PictureButton
          label="History"
          aria-pressed={drawer === 'history'}
          bg={drawer === 'history' ? 'field' : undefined}
          onClick={() => useEditor.setState({ drawer: drawer === 'history' ? null : 'history' })}
        >
          <HistoryIcon size={17} />
        </PictureButton>
        <PictureButton label="Sheet of variations" onClick={openSheet}>
          <LayoutGrid size={17} />
        </PictureButton>
        <PictureButton
          label="Scene"
          aria-pressed={drawer === 'scene'}
          bg={drawer === 'scene' ? 'field' : undefined}
          onClick={() => useEditor.setState({ drawer: drawer === 'scene' ? null : 'scene' })}
        >
          <SlidersHorizontal size={17} />
        </PictureButton>
        <ModeButton />
      </Flex>
      <DeliverButton />
    </Flex>
  );
}

/** Opens the drawer of files; shows how far the one that is being made has come. */
function DeliverButton() {
  const open = useEditor((s) => s.drawer === 'deliver');
  const share = useRenders((s) => {
    const working = s.queue?.renders.find((r) => goesOn(r) && !r.paused);
    return working ? shareOf(working) : null;
  });
  return (
    <StrongButton
      aria-expanded={open}
      position="relative"
      overflow="hidden"
      onClick={() => useEditor.setState({ drawer: open ? null : 'deliver' })}
    >
      <Film size={16} />
      Deliver
      {share !== null && (
        <Box position="absolute" left="0" bottom="0" h="3px" bg="leaf" style={{ width: `${100 * share}%` }} />
      )}
    </StrongButton>
  );
}

function SaveMark() {
  const words = useEditor((s) => SAVE_WORDS[s.save]);
  const why = useEditor((s) => s.saveTrouble);
  const trouble = useEditor((s) => ['offline', 'full', 'signed-out', 'refused', 'conflict'].includes(s.save));
  return (
    <Text
      role="status"
      fontSize="12px"
      color={trouble ? 'poppyText' : 'muted'}
      whiteSpace="nowrap"
      title={trouble && why ? why : undefined}
    >
      {words}
    </Text>
  );
}

function UndoRedo() {
  const { undo, redo } = useEditor.getState();
  const back = useEditor((s) => s.history.past.at(-1)?.label);
  const forth = useEditor((s) => s.history.future[0]?.label);
  return (
    <>
      <PictureButton label={back === undefined ? 'Undo' : `Undo: ${back}`} onClick={undo} disabled={back === undefined}>
        <Undo2 size={17} />
      </PictureButton>
      <PictureButton
        label={forth === undefined ? 'Redo' : `Redo: ${forth}`}
        onClick={redo}
        disabled={forth === undefined}
      >
        <Redo2 size={17} />
      </PictureButton>
    </>
  );
}

function PieceName() {
  const name = useEditor((s) => s.piece.name);
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const next = typed?.trim().slice(0, 120);
    if (next && next !== name) useEditor.getState().edit('Rename', (p) => ({ ...p, name: next }));
    setTyped(null);
  };
  return (
    <chakra.input
      aria-label="Name of the piece"
      value={typed ?? name}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') {
          setTyped(null);
          e.currentTarget.blur();
        }
      }}
      fontFamily="heading"
      fontWeight="700"
      fontSize="17px"
      bg="transparent"
      px="1.5"
      py="0.5"
      borderRadius="field"
      minW="60px"
      maxW="260px"
      textOverflow="ellipsis"
      style={{ width: `${Math.max(6, (typed ?? name).length + 1)}ch` }}
      _hover={{ bg: 'field' }}
      _focus={{ bg: 'raised' }}
    />
  );
}

/** Always in sight: whether the piece closes. Opens the seam check. */
function SeamChip() {
  const gaps = useEditor((s) => verdictOf(s.measure).gaps || verdictOf(s.measure).open.length);
  const turns = useEditor((s) => verdictOf(s.measure).turns);
  const notes = useEditor(
    (s) => verdictOf(s.measure).findings.filter((f) => f.kind === 'speed' || f.kind === 'pause').length,
  );
  const state = useEditor((s) => s.measure.state);
  const open = useEditor((s) => s.drawer === 'seam');
  const measuring = gaps === 0 && state === 'measuring';
  const words =
    gaps > 0
      ? `${gaps} ${gaps === 1 ? 'gap' : 'gaps'} at the seam`
      : measuring
        ? 'Checking the seam'
        : state === 'failed'
          ? 'Seam not checked'
          : turns > 0
            ? 'Closed, but turns round'
            : notes > 0
              ? 'Closed, speed changes'
              : 'Seam closed';
  const tone =
    gaps > 0
      ? { bg: 'poppyWash', color: 'poppyText' }
      : measuring || state === 'failed'
        ? { bg: 'field', color: 'muted' }
        : turns + notes > 0
          ? { bg: 'marigoldWash', color: 'marigoldText' }
          : { bg: 'leafWash', color: 'leafText' };
  return (
    <chakra.button
      type="button"
      data-testid="seam-chip"
      aria-expanded={open}
      aria-live="polite"
      title="Open the seam check"
      {...tone}
      display="flex"
      alignItems="center"
      gap="1.5"
      h="28px"
      px="3"
      borderRadius="full"
      fontSize="13px"
      fontWeight="600"
      whiteSpace="nowrap"
      cursor="pointer"
      onClick={() => useEditor.setState({ drawer: open ? null : 'seam' })}
    >
      {gaps > 0 || (turns + notes > 0 && !measuring) ? (
        <CircleAlert size={15} />
      ) : measuring ? (
        <LoaderCircle size={15} />
      ) : (
        <Check size={15} />
      )}
      {words}
    </chakra.button>
  );
}
