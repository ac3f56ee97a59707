'use client';

import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { Box, Flex, Menu, Text, chakra } from '@chakra-ui/react';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { loopSeconds } from '@maypole/core/time/loop';
import { Check, CircleAlert, Copy, Download, Ellipsis, FileWarning, Pencil, RotateCcw, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { memo, useState } from 'react';
import type { PieceSummary } from '@/contract/pieces';
import { loadPiece, savePiece } from '../api';
import { lineOf } from '../state/line';
import { PictureButton } from '../parts/buttons';
import { whenWords } from '../explore/when-words';
import { tellTrouble } from '../parts/toasts';
import { Thumbnail } from './thumbnail';
import { MenuList } from '../parts/menu-list';

/** Actions on a piece of the shelf. */
export interface CardActs {
  changed(): void;
  remove(piece: PieceSummary): void;
  restore(piece: PieceSummary): void;
  duplicate(piece: PieceSummary): void;
  choose(id: string, chosen: boolean): void;
}

interface Props {
  readonly piece: PieceSummary;
  readonly binned: boolean;
  /** Stable between renders. */
  readonly acts: CardActs;
  readonly chosen: boolean;
  /** While some pieces are selected, all checkboxes stay visible. */
  readonly choosing: boolean;
}

/** After the menu, which returns focus to its button as it closes. */
function afterFocus(work: () => void): void {
  requestAnimationFrame(() => requestAnimationFrame(work));
}

/** A piece on the shelf. Only changed cards are rendered. */
export const PieceCard = memo(function PieceCard({ piece, binned, acts, chosen, choosing }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const rename = async () => {
    const name = typed === null ? '' : keepable(typed.trim(), LIMITS.nameOfPiece);
    setTyped(null);
    if (!name || name === piece.name) return;
    try {
      const stored = await loadPiece(piece.id);
      const read = readPiece(stored.source);
      if (!read.ok) throw new Error(read.message);
      const source = writePiece({ ...read.piece, name });
      const answer = await savePiece(piece.id, source, stored.revision, lineOf(piece.id, source, stored.revision));
      if ('error' in answer) throw new Error(`${answer.error} Reload the shelf and rename it again.`);
      acts.changed();
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'The piece could not be renamed.');
    }
  };
  return (
    <Box
      as="article"
      aria-label={piece.name}
      className="group"
      position="relative"
      bg="panel"
      borderWidth="1px"
      borderColor={chosen ? 'ink' : 'line'}
      borderRadius="14px"
      overflow="hidden"
      // Of a thousand cards only visible ones are laid out.
      css={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 250px' }}
      boxShadow="card"
      transition="border-color .12s"
      _hover={{ borderColor: 'lineStrong' }}
    >
      <ChooseBox piece={piece} acts={acts} chosen={chosen} shown={chosen || choosing} />
      {binned ? (
        <Picture piece={piece} />
      ) : (
        <Link href={`/piece/${piece.id}`} aria-label={`Open ${piece.name}`}>
          <Picture piece={piece} />
        </Link>
      )}
      <Flex align="center" px="3.5" py="2.5" gap="2">
        <Box flex="1" minW="0">
          {typed === null ? (
            <Text fontFamily="heading" fontWeight="700" fontSize="15.5px" truncate>
              {binned ? (
                piece.name
              ) : (
                <Link href={`/piece/${piece.id}`} tabIndex={-1}>
                  {piece.name}
                </Link>
              )}
            </Text>
          ) : (
            <chakra.input
              aria-label="New name"
              autoFocus
              value={typed}
              onFocus={(e) => e.target.select()}
              onChange={(e) => setTyped(e.target.value)}
              onBlur={() => void rename()}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur();
                if (e.key === 'Escape') setTyped(null);
              }}
              fontWeight="700"
              fontSize="15px"
              bg="raised"
              borderWidth="1px"
              borderColor="sky"
              borderRadius="field"
              px="1.5"
              w="100%"
            />
          )}
          <Facts piece={piece} />
        </Box>
        {piece.gaps !== null && (
          <Flex
            align="center"
            gap="1"
            fontSize="12.5px"
            fontWeight="600"
            color={piece.gaps === 0 ? 'leafText' : 'poppyText'}
            whiteSpace="nowrap"
          >
            {piece.gaps === 0 ? <Check size={14} /> : <CircleAlert size={14} />}
            {piece.gaps === 0 ? 'closed' : `${piece.gaps} ${piece.gaps === 1 ? 'gap' : 'gaps'}`}
          </Flex>
        )}
        <CardMenu piece={piece} binned={binned} acts={acts} onRename={() => afterFocus(() => setTyped(piece.name))} />
      </Flex>
    </Box>
  );
});

function Picture({ piece }: { piece: PieceSummary }) {
  return (
    <Box aspectRatio="2 / 1" bg="field" position="relative" overflow="hidden">
      {piece.trouble ? (
        <Flex
          h="100%"
          direction="column"
          align="center"
          justify="center"
          gap="2"
          px="6"
          textAlign="center"
          color="muted"
          fontSize="12.5px"
          lineHeight="1.45"
        >
          <FileWarning size={22} />
          {piece.trouble}
        </Flex>
      ) : (
        <Thumbnail piece={piece} />
      )}
    </Box>
  );
}

function ChooseBox({
  piece,
  acts,
  chosen,
  shown,
}: Pick<Props, 'piece' | 'acts' | 'chosen'> & { readonly shown: boolean }) {
  return (
    <Flex
      as="label"
      position="absolute"
      top="2"
      left="2"
      zIndex="1"
      w="28px"
      h="28px"
      align="center"
      justify="center"
      bg="raised"
      borderRadius="8px"
      cursor="pointer"
      opacity={shown ? 1 : 0}
      _groupHover={{ opacity: 1 }}
      _focusWithin={{ opacity: 1 }}
    >
      <chakra.input
        type="checkbox"
        aria-label={`Choose ${piece.name}`}
        checked={chosen}
        onChange={(e) => acts.choose(piece.id, e.target.checked)}
        w="16px"
        h="16px"
        cursor="pointer"
        css={{ accentColor: 'var(--chakra-colors-ink)' }}
      />
    </Flex>
  );
}

/** Length, labels, and when it was deleted. */
function Facts({ piece }: { piece: PieceSummary }) {
  return (
    <Text fontSize="12.5px" color="muted" truncate>
      {piece.frames !== null && piece.fps !== null ? (
        <>
          <Text as="span" fontFamily="mono">
            {loopSeconds({ frames: piece.frames, fps: piece.fps }).toFixed(2)} s
          </Text>{' '}
          · {piece.frames} frames
        </>
      ) : (
        'kept as it is'
      )}
      {piece.deletedAt && ` · deleted ${whenWords(piece.deletedAt)}`}
      {piece.labels.length > 0 && ` · ${piece.labels.join(', ')}`}
    </Text>
  );
}

function CardMenu({
  piece,
  binned,
  acts,
  onRename,
}: Pick<Props, 'piece' | 'binned' | 'acts'> & { readonly onRename: () => void }) {
  return (
    <Menu.Root positioning={{ placement: 'bottom-end' }} lazyMount>
      <Menu.Trigger asChild>
        <PictureButton label={`More for ${piece.name}`} color="muted">
          <Ellipsis size={17} />
        </PictureButton>
      </Menu.Trigger>
      <MenuList minW="170px">
        {!binned && !piece.trouble && (
          <Menu.Item value="rename" onClick={onRename}>
            <Pencil size={14} />
            Rename
          </Menu.Item>
        )}
        {!binned && !piece.trouble && (
          <Menu.Item value="duplicate" onClick={() => acts.duplicate(piece)}>
            <Copy size={14} />
            Duplicate
          </Menu.Item>
        )}
        <Menu.Item value="export" asChild>
          <a href={`/api/pieces/${piece.id}/file`} download>
            <Download size={14} />
            Export
          </a>
        </Menu.Item>
        {binned ? (
          <Menu.Item value="restore" onClick={() => acts.restore(piece)}>
            <RotateCcw size={14} />
            Put back
          </Menu.Item>
        ) : (
          <Menu.Item value="delete" color="poppyText" onClick={() => acts.remove(piece)}>
            <Trash2 size={14} />
            Delete
          </Menu.Item>
        )}
      </MenuList>
    </Menu.Root>
  );
}
