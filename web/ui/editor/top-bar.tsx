'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { CircleAlert, Check, Film, LoaderCircle, Redo2, SlidersHorizontal, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { proveSeam } from '@maypole/core/seam/proof';
import { useMemo, useState } from 'react';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';
import { PictureButton, StrongButton } from '../parts/buttons';
import { useEditor, type SaveState } from '../state/store';
import { LoopField } from './loop-field';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'Saved',
  waiting: 'Saving…',
  saving: 'Saving…',
  offline: 'Not saved: server away',
  conflict: 'Two versions',
};

export function TopBar() {
  const { undo, redo } = useEditor.getState();
  const history = useEditor((s) => s.history);
  const save = useEditor((s) => s.save);
  const drawer = useEditor((s) => s.drawer);
  return (
    <Flex as="header" h="52px" flexShrink={0} align="center" px="4" gap="3" borderBottomWidth="1px" borderColor="line" bg="panel">
      <Link href="/" aria-label="Back to the shelf" title="Back to the shelf"><Logo /></Link>
      <PieceName />
      <Text role="status" fontSize="12px" color={save === 'offline' || save === 'conflict' ? 'poppyText' : 'muted'} whiteSpace="nowrap">{SAVE_WORDS[save]}</Text>
      <Box flex="1" />
      <LoopField />
      <SeamChip />
      <Flex gap="1" ml="1">
        <PictureButton label={history.past.length ? `Undo: ${history.past.at(-1)!.label}` : 'Undo'} onClick={undo} disabled={history.past.length === 0}><Undo2 size={17} /></PictureButton>
        <PictureButton label={history.future.length ? `Redo: ${history.future[0].label}` : 'Redo'} onClick={redo} disabled={history.future.length === 0}><Redo2 size={17} /></PictureButton>
        <PictureButton label="Scene" aria-pressed={drawer === 'scene'} bg={drawer === 'scene' ? 'field' : undefined} onClick={() => useEditor.setState({ drawer: drawer === 'scene' ? null : 'scene' })}><SlidersHorizontal size={17} /></PictureButton>
        <ModeButton />
      </Flex>
      <StrongButton onClick={() => useEditor.setState({ delivering: true })}><Film size={16} />Deliver</StrongButton>
    </Flex>
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
  const piece = useEditor((s) => s.piece);
  const measure = useEditor((s) => s.measure);
  const open = useEditor((s) => s.drawer === 'seam');
  const proof = useMemo(() => proveSeam(piece), [piece]);
  const apart = measure.ribbons.filter((r) => r.largest > 0).length;
  const gaps = proof.gaps.length || apart;
  const measuring = gaps === 0 && measure.state === 'measuring';
  const words = gaps > 0 ? `${gaps} ${gaps === 1 ? 'gap' : 'gaps'} at the seam` : measuring ? 'Checking the seam' : measure.state === 'failed' ? 'Seam not checked' : 'Seam closed';
  const tone = gaps > 0 ? { bg: 'poppyWash', color: 'poppyText' } : measuring || measure.state === 'failed' ? { bg: 'field', color: 'muted' } : { bg: 'leafWash', color: 'leafText' };
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
      {gaps > 0 ? <CircleAlert size={15} /> : measuring ? <LoaderCircle size={15} /> : <Check size={15} />}
      {words}
    </chakra.button>
  );
}
