'use client';

import { Box, Dialog, Flex, Portal, Text, chakra } from '@chakra-ui/react';
import { entries } from '@maypole/core/find/entries';
import { ranked, type Findable } from '@maypole/core/find/ranking';
import { isShown } from '@maypole/core/declare/shown';
import { ownerKey, valuesOf } from '@maypole/core/piece/addresses';
import { ownersOf } from '@maypole/core/piece/walk';
import { Search } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { listPieces } from '../api';
import { showValue } from '../state/show-value';
import { useEditor } from '../state/store';
import { keysOf, useKeys } from '../state/keys';
import { useCommandField } from './open-stores';
import { runEntry } from './run-entry';
import { useSurroundings } from './surroundings';

/** Most results shown. */
const MOST = 40;

interface Line extends Findable {
  readonly id: string;
  readonly sort: string;
  readonly keys?: string;
  readonly run: () => void;
}

/** Finds everything by what it does: actions, steps, the values of this piece, and other pieces. */
export function CommandField() {
  const open = useCommandField((s) => s.open);
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(d) => useCommandField.setState({ open: d.open })}
      placement="top"
      motionPreset="none"
    >
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.300" />
        <Dialog.Positioner>
          <Dialog.Content
            aria-label="Find and do"
            bg="panel"
            color="ink"
            borderRadius="14px"
            borderWidth="1px"
            borderColor="line"
            shadow="float"
            mt="12vh"
            maxW="560px"
            overflow="hidden"
          >
            {open && <Field close={() => useCommandField.setState({ open: false })} />}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Field({ close }: { close: () => void }) {
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const lines = useLines();
  const found = useMemo(() => ranked(query, lines).slice(0, MOST), [query, lines]);
  const list = useRef<HTMLDivElement>(null);
  const chosen = Math.min(at, found.length - 1);
  useEffect(() => {
    list.current?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen, found]);
  const run = (line: Line | undefined) => {
    if (!line) return;
    close();
    line.run();
  };
  return (
    <>
      <Flex align="center" gap="2.5" px="4" h="52px" borderBottomWidth="1px" borderColor="line">
        <Search size={17} aria-hidden />
        <chakra.input
          autoFocus
          role="combobox"
          aria-label="What do you want to do?"
          aria-expanded
          aria-controls="found"
          aria-activedescendant={found[chosen] ? `found-${chosen}` : undefined}
          placeholder="What do you want to do?"
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key];
            if (by !== undefined) {
              e.preventDefault();
              setAt(Math.max(0, Math.min(found.length - 1, chosen + by)));
            } else if (e.key === 'Enter') {
              e.preventDefault();
              run(found[chosen]);
            }
          }}
          flex="1"
          fontSize="15px"
          bg="transparent"
          outline="none"
          _placeholder={{ color: 'muted' }}
        />
      </Flex>
      <Box ref={list} id="found" role="listbox" aria-label="Found" maxH="min(420px, 56vh)" overflowY="auto" p="1.5">
        {found.map((line, i) => (
          <Flex
            key={line.id}
            id={`found-${i}`}
            role="option"
            aria-selected={i === chosen}
            align="center"
            gap="3"
            px="2.5"
            py="1.5"
            borderRadius="8px"
            cursor="pointer"
            bg={i === chosen ? 'field' : undefined}
            onMouseMove={() => setAt(i)}
            onClick={() => run(line)}
          >
            <Box flex="1" minW="0">
              <Text fontSize="13.5px" fontWeight="600" truncate>
                {line.title}
              </Text>
              {line.help && (
                <Text fontSize="12px" color="muted" truncate>
                  {line.help}
                </Text>
              )}
            </Box>
            {line.keys && (
              <chakra.kbd
                fontFamily="mono"
                fontSize="11px"
                px="1.5"
                borderRadius="4px"
                borderWidth="1px"
                borderColor="line"
              >
                {line.keys}
              </chakra.kbd>
            )}
            <Text fontSize="11.5px" color="muted" w="72px" textAlign="right" flexShrink={0}>
              {line.sort}
            </Text>
          </Flex>
        ))}
        {found.length === 0 && (
          <Text fontSize="13px" color="muted" p="3" role="status">
            Nothing is called “{query}”. Say it in other words, such as what it should look like.
          </Text>
        )}
      </Box>
    </>
  );
}

function useLines(): readonly Line[] {
  const piece = useEditor((s) => s.piece);
  const id = useEditor((s) => s.id);
  const router = useRouter();
  const around = useSurroundings();
  const own = useKeys((s) => s.own);
  const [pieces, setPieces] = useState<readonly Line[]>([]);
  useEffect(() => {
    let ended = false;
    void listPieces()
      .then((all) => {
        if (ended) return;
        const others = all.filter((p) => p.id !== id && p.trouble === null);
        setPieces(
          others.map((p) => ({
            id: `piece:${p.id}`,
            title: p.name,
            also: 'open piece',
            sort: 'Piece',
            run: () => router.push(`/piece/${p.id}`),
          })),
        );
      })
      .catch(() => undefined);
    return () => {
      ended = true;
    };
  }, [id, router]);
  return useMemo(() => {
    const fixed = entries.map((e): Line => {
      const keys = e.does.type === 'action' ? keysOf(e.does.action, own) : null;
      return { ...e, keys: keys ?? undefined, run: () => runEntry(e, around) };
    });
    const owned = new Map(ownersOf(piece).map((o) => [ownerKey(o.owner), o]));
    const values = valuesOf(piece)
      .filter(({ address: { owner, param } }) => {
        const of = owned.get(ownerKey(owner));
        return of && owner.type !== 'output' && isShown(of.params, of.item.values, param);
      })
      .map((v, i): Line => ({
        id: `value:${i}`,
        title: `${v.title}, ${v.place}`,
        sort: 'Value',
        run: () => showValue(v.address),
      }));
    return [...fixed, ...values, ...pieces];
  }, [piece, pieces, around, own]);
}
