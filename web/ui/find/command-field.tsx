'use client';

import { Box, Dialog, Flex, Portal, Text, chakra } from '@chakra-ui/react';
import { entries } from '@maypole/core/find/entries';
import { Search as Finder } from '@maypole/core/find/search';
import { settingKey, settingsIn } from '@maypole/core/find/settings';
import { Search } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { listPieces } from '../api';
import { tell } from '../parts/toasts';
import { showValue } from '../state/show-value';
import { useEditor } from '../state/store';
import { keysOf, useKeys } from '../state/keys';
import { useCommandField } from './open-stores';
import { earlier, LineStatus, useSaidLine } from './line-entry';
import type { Line } from './line';
import { runEntry } from './run-entry';
import { doLine, keptLines } from './say-line';
import { useSurroundings } from './surroundings';

/** Most results shown. */
const MOST = 40;

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
  /** The line that the arrows chose; null for the first that Enter may take. */
  const [at, setAt] = useState<number | null>(null);
  const lines = useLines();
  const finder = useMemo(() => new Finder(lines), [lines]);
  const line = useSaidLine(query);
  // Another piece opens only if an arrow chooses it, or if one asks for that: Enter never leaves the piece by chance.
  const opens = /^\s*(open|piece)\b/i.test(query);
  const found = useMemo(() => {
    const all = finder.find(query);
    const first = all.filter((l) => (l.sort === 'Piece') === opens);
    const rest = all.filter((l) => (l.sort === 'Piece') !== opens);
    return [...(line.entry ? [line.entry] : []), ...first, ...rest].slice(0, MOST);
  }, [query, finder, line, opens]);
  const list = useRef<HTMLDivElement>(null);
  const chosen = Math.min(at ?? (found[0]?.sort === 'Piece' && !opens ? -1 : 0), found.length - 1);
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
          placeholder="What do you want to do? Or say it: torus 2 0.5, twist 240 about z"
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            setAt(null);
          }}
          onKeyDown={(e) => {
            const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key];
            const past = e.key === 'ArrowUp' && chosen <= 0 ? earlier(query) : undefined;
            if (past !== undefined) {
              e.preventDefault();
              setQuery(past);
              setAt(null);
            } else if (by !== undefined) {
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
      <LineStatus typed={query} line={line} />
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
              <Text fontSize="13.5px" fontWeight="600" truncate={i !== chosen} overflowWrap="anywhere">
                {line.title}
              </Text>
              {line.help && (
                <Text fontSize="12px" color="muted" truncate={i !== chosen}>
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
    const values = settingsIn(piece).map((setting): Line => ({
      ...setting,
      id: settingKey(setting),
      sort: 'Value',
      run: () => showValue(setting),
    }));
    const kept = keptLines().map(({ name, line }): Line => ({
      id: `kept:${name}`,
      title: name,
      help: line,
      sort: 'Kept line',
      run: () => {
        if (!doLine(line)) tell('It is so already, or does not fit this piece.');
      },
    }));
    return [...kept, ...fixed, ...values, ...pieces];
  }, [piece, pieces, around, own]);
}
