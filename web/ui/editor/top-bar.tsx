'use client';

import { Box, Flex, Menu, Text, chakra } from '@chakra-ui/react';
import {
  CircleAlert,
  CircleHelp,
  Check,
  Ellipsis,
  Film,
  History as HistoryIcon,
  LayoutGrid,
  LoaderCircle,
  Redo2,
  Search,
  SlidersHorizontal,
  Undo2,
} from 'lucide-react';
import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { writePiece } from '@maypole/core/piece/read';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';
import { createPiece } from '../api';
import { PictureButton, PlainButton, StrongButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { openSheet } from '../explore/sheet-store';
import { useCommandField, useExplainer } from '../find/open-stores';
import { MenuList } from '../parts/menu-list';
import { useNarrow, useTight } from '../state/narrow';
import { goesOn } from '../deliver/awaited';
import { shareOf, useRenders } from '../deliver/renders';
import { keysOf, useKeys } from '../state/keys';
import { verdictOf } from '../state/derived';
import { useEditor, type SaveState } from '../state/store';
import { LoopField } from './loop-field';
import { Others } from './others';

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
  const narrow = useNarrow();
  return (
    <Flex
      as="header"
      h="52px"
      flexShrink={0}
      align="center"
      px={{ base: '2', lg: '4' }}
      gap={{ base: '1', lg: '3' }}
      borderBottomWidth="1px"
      borderColor="line"
      bg="panel"
    >
      <Link href="/" aria-label="Back to the shelf" title="Back to the shelf" style={{ flexShrink: 0 }}>
        <Logo />
      </Link>
      <PieceName />
      {narrow ? <NarrowTools /> : <Tools />}
      <DeliverButton />
    </Flex>
  );
}

function Tools() {
  return (
    <>
      <SaveOrLook />
      <Others />
      <Box flex="1" />
      <LoopField />
      <SeamChip />
      <Flex gap={{ base: '0', lg: '1' }} ml={{ base: '0', lg: '1' }} flexShrink={0}>
        <UndoRedo />
        <FindButton />
        <DrawerButton drawer="history" label="History">
          <HistoryIcon size={17} />
        </DrawerButton>
        <PictureButton label="Sheet of variations" data-opens="sheet" onClick={openSheet}>
          <LayoutGrid size={17} />
        </PictureButton>
        <DrawerButton drawer="scene" label="Scene">
          <SlidersHorizontal size={17} />
        </DrawerButton>
        <ExplainButton />
        <ModeButton />
      </Flex>
    </>
  );
}

/** What is needed all the time; the rest waits in a menu. */
function NarrowTools() {
  const tight = useTight();
  return (
    <>
      {!tight && <SaveOrLook />}
      <Box flex="1" />
      <SeamChip short={tight} />
      <Flex flexShrink={0}>
        <UndoRedo />
        <Menu.Root positioning={{ placement: 'bottom-end' }} lazyMount>
          <Menu.Trigger asChild>
            <PictureButton label="Find, history and sheets">
              <Ellipsis size={18} />
            </PictureButton>
          </Menu.Trigger>
          <MenuList>
            {MORE.map(({ id, title, run }) => (
              <Menu.Item key={id} value={id} minH="36px" onClick={run}>
                {title}
              </Menu.Item>
            ))}
          </MenuList>
        </Menu.Root>
        <ModeButton />
      </Flex>
    </>
  );
}

const MORE = [
  { id: 'find', title: 'Find and do', run: () => useCommandField.setState({ open: true }) },
  { id: 'history', title: 'History', run: () => useEditor.setState({ drawer: 'history' }) },
  { id: 'sheet', title: 'Sheet of variations', run: openSheet },
  { id: 'explain', title: 'What is this?', run: () => useExplainer.setState({ open: true }) },
] as const;

function DrawerButton({
  drawer,
  label,
  children,
}: {
  drawer: 'history' | 'scene';
  label: string;
  children: ReactNode;
}) {
  const open = useEditor((s) => s.drawer === drawer);
  return (
    <PictureButton
      label={label}
      data-opens={drawer}
      aria-pressed={open}
      bg={open ? 'field' : undefined}
      onClick={() => useEditor.setState({ drawer: open ? null : drawer })}
    >
      {children}
    </PictureButton>
  );
}

/** Explains what one points at. */
function ExplainButton() {
  const open = useExplainer((s) => s.open);
  const keys = useKeys((s) => keysOf('explain', s.own));
  return (
    <PictureButton
      label={keys ? `What is this? (${keys})` : 'What is this?'}
      aria-pressed={open}
      bg={open ? 'field' : undefined}
      onClick={() => useExplainer.setState({ open: !open })}
    >
      <CircleHelp size={17} />
    </PictureButton>
  );
}

function FindButton() {
  const keys = useKeys((s) => keysOf('find', s.own));
  return (
    <PictureButton
      label={keys ? `Find and do (${keys})` : 'Find and do'}
      onClick={() => useCommandField.setState({ open: true })}
    >
      <Search size={17} />
    </PictureButton>
  );
}

/** Opens the delivery drawer; shows the progress of the running render. */
function DeliverButton() {
  const open = useEditor((s) => s.drawer === 'deliver');
  const share = useRenders((s) => {
    const working = s.queue?.renders.find((r) => goesOn(r) && !r.paused);
    return working ? shareOf(working) : null;
  });
  return (
    <StrongButton
      aria-expanded={open}
      aria-label="Deliver"
      data-opens="deliver"
      flexShrink={0}
      position="relative"
      overflow="hidden"
      onClick={() => useEditor.setState({ drawer: open ? null : 'deliver' })}
    >
      <Film size={16} />
      <Text as="span" hideBelow="md">
        Deliver
      </Text>
      {share !== null && (
        <Box position="absolute" left="0" bottom="0" h="3px" bg="leaf" style={{ width: `${100 * share}%` }} />
      )}
    </StrongButton>
  );
}

function SaveOrLook() {
  return useEditor((s) => s.readOnly) ? <LookMark /> : <SaveMark />;
}

/** A read-only view stores nothing; it offers to copy the piece as it is. */
function LookMark() {
  const router = useRouter();
  const copy = async () => {
    const { piece } = useEditor.getState();
    try {
      const made = await createPiece(
        writePiece({ ...piece, name: `${keepable(piece.name, LIMITS.nameOfPiece - 5)} copy` }),
      );
      router.push(`/piece/${made.id}`);
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'The copy could not be made.');
    }
  };
  return (
    <>
      <Text role="status" fontSize="12px" color="marigoldText" whiteSpace="nowrap" title="Changes are not kept">
        Only to look at
      </Text>
      <PlainButton size="2xs" h="26px" px="2" fontSize="12px" onClick={() => void copy()}>
        Make a copy
      </PlainButton>
    </>
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
    const next = typed === null ? '' : keepable(typed.trim(), LIMITS.nameOfPiece);
    if (next && next !== name) useEditor.getState().edit('Rename', (p) => ({ ...p, name: next }));
    setTyped(null);
  };
  return (
    <chakra.input
      aria-label="Name of the piece"
      data-opens="piece-name"
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
      minW={{ base: '0', lg: '60px' }}
      maxW="260px"
      flexShrink={1}
      textOverflow="ellipsis"
      style={{ width: `${Math.max(6, (typed ?? name).length + 2)}ch` }}
      _hover={{ bg: 'field' }}
      _focus={{ bg: 'raised' }}
    />
  );
}

/** Always visible: whether the piece closes. Opens the seam check. */
function SeamChip({ short = false }: { short?: boolean }) {
  const gaps = useEditor((s) => verdictOf(s.measure).gaps || verdictOf(s.measure).open.length);
  const turns = useEditor((s) => verdictOf(s.measure).turns);
  const notes = useEditor(
    (s) => verdictOf(s.measure).findings.filter((f) => f.kind === 'speed' || f.kind === 'pause').length,
  );
  const state = useEditor((s) => s.measure.state);
  const open = useEditor((s) => s.drawer === 'seam');
  const at = useEditor((s) => s.measure.at);
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
      aria-label={short ? words : undefined}
      title={measuring && at ? `The seam check waits for the shape of ${at}` : short ? words : 'Open the seam check'}
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
      {short ? (gaps > 0 ? gaps : null) : words}
    </chakra.button>
  );
}
