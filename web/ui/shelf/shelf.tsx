'use client';

import { Box, Flex, Grid, Heading, Text, chakra } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { BIN_DAYS, type PieceSummary } from '@/contract/pieces';
import type { Viewer } from '@/contract/person';
import { mayEdit } from '../people/person-links';
import { PieceCard, type CardActs } from './card';
import { ChosenBar } from './chosen-bar';
import { droppedFiles } from './dropped';
import { NewLoop } from './new-loop';
import { Nothing } from './nothing';
import { EVERYTHING, isNarrowed, labelsOf, onShelf, type Sought } from './order';
import { ShelfHeader } from './shelf-header';
import { Sorter } from './sorter';
import { useMore } from './use-more';
import { usePieces, type View } from './use-pieces';
import { useSteady } from './use-steady';

/** The home page: all pieces, as playing thumbnails. */
export function Shelf({
  initial,
  total,
  viewer,
}: {
  /** The most recently changed. */
  initial: PieceSummary[];
  /** Total number of pieces. */
  total: number;
  viewer: Viewer;
}) {
  const router = useRouter();
  const shelf = usePieces(initial, total);
  const { pieces, view, refresh, importFiles, together } = shelf;
  const [sought, setSought] = useState(EVERYTHING);
  const seek = useCallback((part: Partial<Sought>) => setSought((s) => ({ ...s, ...part })), []);
  const [chosen, choose, none] = useChosen();
  const [beginning, setBeginning] = useState(false);
  const [shown, more] = useMore(`${view}/${Object.values(sought).join('/')}`);
  const labels = labelsOf(pieces);
  const found = onShelf(pieces, { ...sought, label: labels.includes(sought.label) ? sought.label : '' });
  const picked = found.filter((p) => chosen.has(p.id));
  const ids = picked.map((p) => p.id);
  const count = `${ids.length} ${ids.length === 1 ? 'piece' : 'pieces'}`;
  const acts = useSteady<CardActs>({
    changed: () => void refresh(view),
    remove: (piece) => void shelf.remove(piece),
    restore: (piece) => void shelf.restore(piece),
    duplicate: (piece) => void shelf.duplicate(piece),
    choose,
  });
  return (
    <Box
      minH="100vh"
      bg="paper"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void droppedFiles([...e.dataTransfer.items]).then(importFiles);
      }}
    >
      <ShelfHeader
        taking={shelf.taking}
        query={sought.query}
        onQuery={(query) => seek({ query })}
        viewer={viewer}
        onImport={importFiles}
        onBegin={() => setBeginning(true)}
      />
      <Box maxW="1240px" mx="auto" px="5" pt="6" pb="16">
        <Flex align="baseline" gap="3" mb="4">
          <Title view={view} known={shelf.known} />
          <Box flex="1" />
          {pieces.length > 1 && <Sorter pieces={pieces} labels={labels} sought={sought} onSeek={seek} />}
          <Views
            view={view}
            onShow={(which) => {
              none();
              shelf.show(which);
            }}
          />
        </Flex>
        {found.length === 0 ? (
          <Nothing
            view={view}
            searched={sought.query !== ''}
            sorted={isNarrowed(sought)}
            onBegin={() => setBeginning(true)}
          />
        ) : (
          <Grid templateColumns="repeat(auto-fill, minmax(320px, 1fr))" gap="6">
            {found.slice(0, shown).map((piece) => (
              <PieceCard
                key={piece.id}
                piece={piece}
                binned={view === 'bin'}
                acts={acts}
                chosen={chosen.has(piece.id)}
                choosing={chosen.size > 0}
              />
            ))}
          </Grid>
        )}
        {found.length > shown && <Box ref={more} h="1px" aria-hidden />}
        {picked.length > 0 && (
          <ChosenBar
            pieces={picked}
            binned={view === 'bin'}
            edits={mayEdit(viewer)}
            labels={labels}
            onLabel={(l) => void together({ does: 'label', label: l, ids }, `${count} labelled “${l}”.`)}
            onUnlabel={(l) =>
              void together({ does: 'unlabel', label: l, ids }, `“${l}” is taken from ${count}.`, {
                does: 'label',
                label: l,
                ids,
              })
            }
            onBin={() => {
              none();
              void together({ does: 'bin', ids }, `${count} in the bin.`, { does: 'restore', ids });
            }}
            onRestore={() => {
              none();
              void together({ does: 'restore', ids }, `${count} back on the shelf.`);
            }}
            onCompare={() => router.push(`/piece/${ids[0]}?compare=${ids[1]}`)}
            onClear={none}
          />
        )}
        <NewLoop open={beginning} onClose={() => setBeginning(false)} onChoose={shelf.begin} />
        <Flex justify="center" gap="6" mt="14" fontSize="12.5px" color="muted" _hover={{ color: 'ink' }}>
          <Link href="/guide">Guide</Link>
          <Link href="/check">Does this machine draw right?</Link>
          <Link href="/notices">Made with</Link>
        </Flex>
      </Box>
    </Box>
  );
}

function Views({ view, onShow }: { view: View; onShow: (view: View) => void }) {
  return (
    <>
      {(['all', 'bin'] as const).map((v) => (
        <chakra.button
          key={v}
          type="button"
          aria-pressed={v === view}
          onClick={() => onShow(v)}
          fontSize="13.5px"
          fontWeight={v === view ? 600 : 500}
          color={v === view ? 'ink' : 'muted'}
          pb="1"
          borderBottomWidth="2px"
          borderColor={v === view ? 'poppy' : 'transparent'}
          cursor="pointer"
        >
          {v === 'all' ? 'All' : 'Bin'}
        </chakra.button>
      ))}
    </>
  );
}

/** Pieces that are chosen, by id. */
function useChosen(): [ReadonlySet<string>, (id: string, on: boolean) => void, () => void] {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const choose = (id: string, on: boolean) =>
    setChosen((before) => new Set(on ? [...before, id] : [...before].filter((other) => other !== id)));
  return [chosen, choose, () => setChosen(new Set())];
}

function Title({ view, known }: { view: View; known: number }) {
  return (
    <>
      <Heading as="h1" fontFamily="heading" fontSize="27px" fontWeight="700">
        {view === 'all' ? 'Shelf' : 'Bin'}
      </Heading>
      <Text color="muted" fontSize="13.5px">
        {known} {known === 1 ? 'piece' : 'pieces'}
        {view === 'bin' && `, each for ${BIN_DAYS} days after it was put here`}
      </Text>
    </>
  );
}
