'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { CircleHelp, FileUp, Film, FolderUp, Plus, Search } from 'lucide-react';
import NextLink from 'next/link';
import { useRef } from 'react';
import type { Viewer } from '@/contract/person';
import { PictureButton, StrongButton } from '../parts/buttons';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';
import { mayEdit, PersonLinks } from '../people/person-links';
import { mayBePiece, MOST_FILES } from './dropped';

/** A file input for a folder; React's types do not know it. */
const OF_FOLDER = { webkitdirectory: '' };

/** The bar above: finding, taking in, the other pages, and a new loop. */
export function ShelfHeader({
  taking,
  query,
  onQuery,
  viewer,
  onImport,
  onBegin,
}: {
  /** Progress of an import; empty if there is none. */
  taking: string;
  query: string;
  onQuery: (query: string) => void;
  viewer: Viewer;
  onImport: (files: readonly File[]) => Promise<void>;
  onBegin: () => void;
}) {
  return (
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
      <FindField query={query} onQuery={onQuery} />
      <ImportButtons shown={mayEdit(viewer)} onImport={onImport} />
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
        <StrongButton onClick={onBegin}>
          <Plus size={16} />
          New loop
        </StrongButton>
      )}
      <PersonLinks viewer={viewer} />
    </Flex>
  );
}

function FindField({ query, onQuery }: { query: string; onQuery: (query: string) => void }) {
  return (
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
        value={query}
        onChange={(e) => onQuery(e.target.value)}
        flex="1"
        minW="0"
        bg="transparent"
        color="ink"
        outline="none"
        fontSize="13.5px"
        _placeholder={{ color: 'muted' }}
      />
    </Flex>
  );
}

function ImportButtons({ shown, onImport }: { shown: boolean; onImport: (files: readonly File[]) => Promise<void> }) {
  const folder = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  return (
    <>
      {shown && (
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
          void onImport([...(e.target.files ?? [])]).then(() => {
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
          void onImport(all).then(() => {
            if (folder.current) folder.current.value = '';
          });
        }}
      />
    </>
  );
}
