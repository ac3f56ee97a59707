'use client';

import { Box, Flex, Grid, Heading, Text, chakra } from '@chakra-ui/react';
import type { Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { CircleHelp, FileUp, Film, FolderUp, Plus, Search } from 'lucide-react';
import Link from 'next/link';
import NextLink from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { BIN_DAYS, type PieceSummary, type SeveralEdit } from '@/contract/pieces';
import type { Viewer } from '@/contract/person';
import { editSeveral, createPiece, deletePiece, duplicatePiece, listPieces, restorePiece } from '../api';
import { PictureButton, StrongButton } from '../parts/buttons';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';
import { tell, tellTrouble } from '../parts/toasts';
import { mayEdit, PersonLinks } from '../people/person-links';
import { noteStart } from '../state/first-turns';
import { PieceCard, type CardActs } from './card';
import { ChosenBar } from './chosen-bar';
import { useMore } from './use-more';
import { useSteady } from './use-steady';
import { NewLoop } from './new-loop';
import { EVERYTHING, isNarrowed, labelsOf, onShelf, type Sought } from './order';
import { Sorter } from './sorter';
import { droppedFiles, mayBePiece, MOST_FILES } from './dropped';
import { takeIn } from './take-in';

type View = 'all' | 'bin';

/** A file input for a folder; React's types do not know it. */
const OF_FOLDER = { webkitdirectory: '' };

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
  const [pieces, setPieces] = useState(initial);
  const [view, setView] = useState<View>('all');
  const [sought, setSought] = useState(EVERYTHING);
  const seek = useCallback((part: Partial<Sought>) => setSought((s) => ({ ...s, ...part })), []);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [beginning, setBeginning] = useState(false);
  /** Progress of an import; empty if there is none. */
  const [taking, setTaking] = useState('');
  const folder = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  const [shown, more] = useMore(`${view}/${Object.values(sought).join('/')}`);

  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'That did not work.');
    }
  }, []);
  const refresh = useCallback(
    (which: View) => attempt(async () => setPieces(await listPieces(which === 'bin'))),
    [attempt],
  );
  const part = initial.length < total;
  useEffect(() => {
    if (part) void refresh('all');
  }, [part, refresh]);
  const show = (which: View) => {
    setView(which);
    setChosen(new Set());
    void refresh(which);
  };

  const begin = (piece: Piece, start: string | null) =>
    attempt(async () => {
      const { id } = await createPiece(writePiece(piece));
      if (start) noteStart(id, start);
      router.push(`/piece/${id}`);
    });
  const importFiles = (list: readonly File[]) =>
    attempt(async () => {
      if (list.length === 0) return tellTrouble('There is no piece file in it; piece files end in .json.');
      const { taken, refused } = await takeIn(list, (done) =>
        setTaking(list.length > 1 ? `Taking in ${done + 1} of ${list.length}` : ''),
      );
      setTaking('');
      if (taken > 0) {
        tell(
          taken === 1 && list.length === 1 ? `${list[0].name} is on the shelf.` : `${taken} pieces are on the shelf.`,
        );
        await refresh('all');
        setView('all');
      }
      // Reports all problems; of many, the first three and their number.
      for (const words of refused.slice(0, 3)) tellTrouble(words);
      if (refused.length > 3) tellTrouble(`${refused.length - 3} more files could not be taken in.`);
    });
  const remove = (piece: PieceSummary) =>
    attempt(async () => {
      await deletePiece(piece.id);
      setPieces((list) => list.filter((p) => p.id !== piece.id));
      tell(`${piece.name} is in the bin.`, {
        label: 'Undo',
        onClick: () => void attempt(() => restorePiece(piece.id)).then(() => refresh('all')),
      });
    });
  const restore = (piece: PieceSummary) =>
    attempt(async () => {
      await restorePiece(piece.id);
      tell(`${piece.name} is back on the shelf.`);
      await refresh('bin');
    });
  const duplicate = (piece: PieceSummary) =>
    attempt(async () => {
      await duplicatePiece(piece.id);
      await refresh('all');
    });

  const together = (what: SeveralEdit, words: string, back?: SeveralEdit) =>
    attempt(async () => {
      await editSeveral(what);
      await refresh(view);
      tell(words, back && { label: 'Undo', onClick: () => void together(back, 'Taken back.') });
    });

  // Until all pieces are loaded, the total comes from the page itself.
  const known = pieces === initial ? total : pieces.length;
  const labels = labelsOf(pieces);
  const found = onShelf(pieces, { ...sought, label: labels.includes(sought.label) ? sought.label : '' });
  const picked = found.filter((p) => chosen.has(p.id));
  const ids = picked.map((p) => p.id);
  const count = `${ids.length} ${ids.length === 1 ? 'piece' : 'pieces'}`;
  const acts = useSteady<CardActs>({
    changed: () => void refresh(view),
    remove: (piece) => void remove(piece),
    restore: (piece) => void restore(piece),
    duplicate: (piece) => void duplicate(piece),
    choose: (id, on) =>
      setChosen((before) => {
        const next = new Set(before);
        if (on) next.add(id);
        else next.delete(id);
        return next;
      }),
  });
  const none = () => setChosen(new Set());
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
      <Flex
        as="header"
        h="52px"
        align="center"
        px="4"
        gap="3"
        bg="panel"
        borderBottomWidth="1px"
        borderColor="line"
        position="sticky"
        top="0"
        zIndex="10"
      >
        <Logo />
        <Text fontFamily="heading" fontWeight="700" fontSize="18px">
          Maypole
        </Text>
        <Text role="status" flex="1" textAlign="right" fontSize="12.5px" color="muted">
          {taking}
        </Text>
        <Flex
          align="center"
          gap="2"
          h="30px"
          w="260px"
          px="2.5"
          borderWidth="1px"
          borderColor="line"
          borderRadius="8px"
          bg="raised"
          color="muted"
        >
          <Search size={15} />
          <chakra.input
            aria-label="Find a piece"
            placeholder="Find a piece"
            value={sought.query}
            onChange={(e) => seek({ query: e.target.value })}
            flex="1"
            minW="0"
            bg="transparent"
            color="ink"
            outline="none"
            fontSize="13.5px"
            _placeholder={{ color: 'muted' }}
          />
        </Flex>
        {mayEdit(viewer) && (
          <>
            <PictureButton label="Import piece files" onClick={() => files.current?.click()}>
              <FileUp size={17} />
            </PictureButton>
            <PictureButton label="Import a folder of pieces" onClick={() => folder.current?.click()}>
              <FolderUp size={17} />
            </PictureButton>
          </>
        )}
        <input
          ref={files}
          type="file"
          accept=".json,application/json"
          multiple
          hidden
          data-testid="import"
          onChange={(e) => {
            void importFiles([...(e.target.files ?? [])]).then(() => {
              if (files.current) files.current.value = '';
            });
          }}
        />
        <input
          ref={folder}
          type="file"
          {...OF_FOLDER}
          hidden
          data-testid="import-folder"
          onChange={(e) => {
            const all = [...(e.target.files ?? [])].filter((f) => mayBePiece(f.name)).slice(0, MOST_FILES);
            void importFiles(all).then(() => {
              if (folder.current) folder.current.value = '';
            });
          }}
        />
        <PictureButton label="Guide" asChild>
          <NextLink href="/guide">
            <CircleHelp size={17} />
          </NextLink>
        </PictureButton>
        <PictureButton label="Renders and machines" asChild>
          <NextLink href="/renders">
            <Film size={17} />
          </NextLink>
        </PictureButton>
        <ModeButton />
        {mayEdit(viewer) && (
          <StrongButton onClick={() => setBeginning(true)}>
            <Plus size={16} />
            New loop
          </StrongButton>
        )}
        <PersonLinks viewer={viewer} />
      </Flex>
      <Box maxW="1240px" mx="auto" px="5" pt="6" pb="16">
        <Flex align="baseline" gap="3" mb="4">
          <Heading as="h1" fontFamily="heading" fontSize="27px" fontWeight="700">
            {view === 'all' ? 'Shelf' : 'Bin'}
          </Heading>
          <Text color="muted" fontSize="13.5px">
            {known} {known === 1 ? 'piece' : 'pieces'}
            {view === 'bin' && `, each for ${BIN_DAYS} days after it was put here`}
          </Text>
          <Box flex="1" />
          {pieces.length > 1 && <Sorter pieces={pieces} labels={labels} sought={sought} onSeek={seek} />}
          {(['all', 'bin'] as const).map((v) => (
            <chakra.button
              key={v}
              type="button"
              aria-pressed={v === view}
              onClick={() => show(v)}
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
        <NewLoop open={beginning} onClose={() => setBeginning(false)} onChoose={begin} />
        <Flex justify="center" gap="6" mt="14" fontSize="12.5px" color="muted" _hover={{ color: 'ink' }}>
          <Link href="/guide">Guide</Link>
          <Link href="/check">Does this machine draw right?</Link>
          <Link href="/notices">Made with</Link>
        </Flex>
      </Box>
    </Box>
  );
}

function Nothing({
  view,
  searched,
  sorted,
  onBegin,
}: {
  view: View;
  searched: boolean;
  /** Only some kinds of pieces are shown. */
  sorted: boolean;
  onBegin: () => void;
}) {
  return (
    <Flex direction="column" align="center" gap="4" py="24" textAlign="center">
      <Text fontFamily="heading" fontWeight="700" fontSize="19px">
        {searched
          ? 'No piece of that name'
          : sorted
            ? 'No piece of that kind'
            : view === 'bin'
              ? 'The bin is empty'
              : 'The shelf is empty'}
      </Text>
      {!searched && !sorted && view === 'all' && (
        <>
          <Text color="muted" maxW="380px" lineHeight="1.55">
            A piece is one loop: forms that move and meet themselves again. Begin one, or drop piece files or a folder
            here.
          </Text>
          <StrongButton onClick={onBegin}>
            <Plus size={16} />
            New loop
          </StrongButton>
        </>
      )}
    </Flex>
  );
}
