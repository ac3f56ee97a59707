'use client';

import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { LOOK_WORDS, type LookKind } from '@maypole/core/looks/look';
import { shippedScenes } from '@maypole/core/looks/shipped';
import type { Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { Bookmark, X } from 'lucide-react';
import { useEffect, useState, type FormEvent } from 'react';
import type { KeptLook } from '@/contract/pieces';
import { keepLook, listLooks, removeLook } from '../api';
import { focusAfterClosing } from '../parts/focus-after';
import { PictureButton, StrongButton } from '../parts/buttons';
import { draggable } from './drag-look';
import { LookPicture } from './look-picture';
import { tell, tellTrouble } from '../parts/toasts';

/** The kind of which some ship with Maypole. Finishes and lights have pickers of their own. */
const SHIPPED: LookKind = 'scene';

interface Props {
  readonly kind: LookKind;
  /** The present state as a look with a name; null if there is nothing to keep. */
  readonly now: ((name: string) => Piece) | null;
  /** Applies a kept one. */
  readonly onUse: (look: Piece, name: string) => void;
}

/** Keeps the present state under a name, and applies what was kept, here or in another piece. */
export function KeptLooks({ kind, now, onUse }: Props) {
  const [open, setOpen] = useState(false);
  const { many } = LOOK_WORDS[kind];
  return (
    <Popover.Root
      open={open}
      onOpenChange={(d) => setOpen(d.open)}
      finalFocusEl={focusAfterClosing}
      positioning={{ placement: 'bottom-end', strategy: 'fixed', overflowPadding: 8 }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger asChild>
        <PictureButton label={`Kept ${many}`} color="muted">
          <Bookmark size={14} />
        </PictureButton>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            w="270px"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label={`Kept ${many}`}
          >
            <Popover.Body p="3">
              <List
                kind={kind}
                now={now}
                onUse={(look, name) => {
                  setOpen(false);
                  onUse(look, name);
                }}
              />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function List({ kind, now, onUse }: Props) {
  const { one, many } = LOOK_WORDS[kind];
  const [looks, setLooks] = useState<readonly KeptLook[] | null>(null);
  const trouble = (error: unknown) => tellTrouble(error instanceof Error ? error.message : String(error));
  useEffect(() => {
    let ended = false;
    listLooks(kind).then((all) => !ended && setLooks(all), trouble);
    return () => {
      ended = true;
    };
  }, [kind]);
  const keep = async (called: string): Promise<boolean> => {
    if (!now) return false;
    try {
      const made = await keepLook(kind, writePiece(now(called)));
      setLooks((all) => [made, ...(all ?? [])]);
      tell(`Kept “${called}”. It can be used in every piece.`);
      return true;
    } catch (error) {
      trouble(error);
      return false;
    }
  };
  const use = (look: KeptLook) => {
    const read = readPiece(look.source);
    if (read.ok) onUse(read.piece, look.name);
    else tellTrouble(read.message);
  };
  const remove = (look: KeptLook) =>
    removeLook(look.id).then(() => setLooks((all) => all!.filter((l) => l.id !== look.id)), trouble);
  return (
    <>
      {now && <KeepForm one={one} onKeep={keep} />}
      {looks === null ? (
        <Text fontSize="12px" color="muted">
          Looking…
        </Text>
      ) : looks.length === 0 ? (
        <Text fontSize="12px" color="muted" lineHeight="1.4">
          No {many} are kept yet. What you keep here is there in every piece.
        </Text>
      ) : (
        <Box role="list" maxH="260px" overflowY="auto" mx="-1">
          {looks.map((look) => (
            <LookRow key={look.id} kind={kind} look={look} onUse={() => use(look)} onRemove={() => void remove(look)} />
          ))}
        </Box>
      )}
      {kind === SHIPPED && <Included kind={kind} now={now} onUse={onUse} />}
    </>
  );
}

/** Keeps what is there now by a name. */
function KeepForm({ one, onKeep }: { one: string; onKeep: (name: string) => Promise<boolean> }) {
  const [name, setName] = useState('');
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const called = name.trim();
    if (called && (await onKeep(called))) setName('');
  };
  return (
    <chakra.form onSubmit={(e) => void keep(e)} display="flex" gap="1.5" mb="2">
      <chakra.input
        aria-label={`Name for this ${one}`}
        placeholder={`Keep this ${one} as…`}
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
        flex="1"
        minW="0"
        h="28px"
        px="2"
        bg="field"
        borderRadius="field"
        fontSize="12.5px"
      />
      <StrongButton type="submit" size="xs" h="28px" disabled={name.trim() === ''}>
        Keep
      </StrongButton>
    </chakra.form>
  );
}

function LookRow({
  kind,
  look,
  onUse,
  onRemove,
}: Pick<Props, 'kind'> & { look: KeptLook; onUse: () => void; onRemove: () => void }) {
  return (
    <Flex role="listitem" align="center" borderRadius="field" _hover={{ bg: 'field' }}>
      <chakra.button
        type="button"
        title="Click to use it, or drag it onto the picture"
        onClick={onUse}
        {...draggable(() => {
          const read = readPiece(look.source);
          return read.ok ? { kind, look: read.piece, name: look.name, use: onUse } : null;
        })}
        display="flex"
        alignItems="center"
        gap="2.5"
        flex="1"
        minW="0"
        px="2"
        h="48px"
        textAlign="left"
        fontSize="12.5px"
        fontWeight="500"
        cursor="pointer"
      >
        <LookPicture look={look} />
        <Text truncate>{look.name}</Text>
      </chakra.button>
      <PictureButton label={`Remove ${look.name}`} color="muted" minW="24px" onClick={onRemove}>
        <X size={13} />
      </PictureButton>
    </Flex>
  );
}

/** Looks that come with Maypole. */
function Included({ kind, now, onUse }: Props) {
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="2" pt="2" mx="-1" role="group" aria-label="Included with Maypole">
      <Text px="2" fontSize="11.5px" color="muted" mb="0.5">
        Included; your camera stays
      </Text>
      {shippedScenes().map((look) => {
        // The camera of the piece is part of what is there now.
        const wear = () =>
          onUse({ ...look, scene: { ...look.scene, cameras: now!(look.name).scene.cameras } }, look.name);
        return (
          <chakra.button
            key={look.name}
            type="button"
            onClick={wear}
            {...draggable(() => ({ kind, look, name: look.name, use: wear }))}
            display="block"
            w="100%"
            px="2"
            h="28px"
            textAlign="left"
            fontSize="12.5px"
            fontWeight="500"
            borderRadius="field"
            cursor="pointer"
            _hover={{ bg: 'field' }}
            truncate
          >
            {look.name}
          </chakra.button>
        );
      })}
    </Box>
  );
}
