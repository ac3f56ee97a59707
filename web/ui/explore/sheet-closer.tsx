'use client';

import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { differences } from '@maypole/core/explore/differences';
import type { Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { Lock } from 'lucide-react';
import { useMemo } from 'react';
import { createPiece } from '../api';
import { PictureButton, PlainButton, StrongButton } from '../parts/buttons';
import { tell, tellTrouble } from '../parts/toasts';
import { useEditor } from '../state/store';
import { keepAs, tellKept } from './history-store';
import { StripCanvas } from './strip-canvas';
import { closeSheet, goOnFrom, useSheet, type Tile } from './sheet-store';

/** Reach of a sheet that continues from a variation, as a fraction of the present reach. */
const NEARER = 0.6;
const MOST_SAID = 40;

/** The selected variation: its differences, and what can be done with it. */
export function SheetCloser() {
  const tiles = useSheet((s) => s.tiles);
  const picked = useSheet((s) => s.picked);
  const [tile, other] = picked.map((id) => tiles.find((t) => t.id === id)).filter((t): t is Tile => t !== undefined);
  return (
    <Box
      as="aside"
      aria-label="Closer"
      w="288px"
      flexShrink={0}
      overflowY="auto"
      borderLeftWidth="1px"
      borderColor="line"
      bg="panel"
      p="4"
    >
      {tile ? (
        other ? (
          <Two a={tile} b={other} />
        ) : (
          <One tile={tile} />
        )
      ) : (
        <Text fontSize="13px" color="muted">
          Click a variation to look closer. Hold Ctrl and click another to mix the two.
        </Text>
      )}
    </Box>
  );
}

export const tileName = (tile: Tile, tiles: readonly Tile[]) =>
  tile.index < 0 ? 'Now' : `${tiles.filter((t) => t.index >= 0).indexOf(tile) + 1}`;

function One({ tile }: { tile: Tile }) {
  const base = useSheet((s) => s.base);
  const tiles = useSheet((s) => s.tiles);
  const variables = useSheet((s) => s.variables);
  const reach = useSheet((s) => s.reach);
  const said = useMemo(() => differences(base, tile.piece), [base, tile]);
  const name = tileName(tile, tiles);
  return (
    <>
      <Box borderRadius="card" overflow="hidden">
        <StripCanvas strip={tile.strip} loop={tile.piece.loop} label={`Variation ${name}, playing`} />
      </Box>
      <Heading as="h3" fontFamily="heading" fontSize="15px" mt="3">
        {tile.index < 0 ? 'The piece as it is now' : `Variation ${name}`}
      </Heading>
      {tile.index >= 0 && (
        <>
          <Flex direction="column" gap="2" mt="3">
            <StrongButton onClick={() => makeThePiece(tile.piece, name)}>Make it the piece</StrongButton>
            <Flex gap="2">
              <PlainButton flex="1" onClick={() => goOnFrom(tile.piece, { type: 'spread' }, reach * NEARER)}>
                More like this
              </PlainButton>
              <PlainButton flex="1" onClick={() => lessLike(tile)}>
                Less like this
              </PlainButton>
            </Flex>
            <Flex gap="2">
              <PlainButton flex="1" onClick={() => void keepIt(tile.piece, name)}>
                Keep as a take
              </PlainButton>
              <PlainButton flex="1" onClick={() => void openBeside(tile.piece, name)}>
                Own piece
              </PlainButton>
            </Flex>
          </Flex>
          <Heading as="h4" fontSize="12.5px" fontWeight="600" color="muted" mt="4" mb="1">
            {said.length} {said.length === 1 ? 'value differs' : 'values differ'}
          </Heading>
          {said.slice(0, MOST_SAID).map((d, i) => {
            const own = variables.filter((v) => v.item === d.item && v.title.startsWith(d.what));
            return (
              <Flex key={i} gap="2" py="1" borderTopWidth="1px" borderColor="line" align="center">
                <Box flex="1" minW="0">
                  <Text fontSize="12.5px" truncate title={`${d.what}, ${d.place}`}>
                    {d.what}
                  </Text>
                  <Text fontSize="11.5px" color="muted" fontFamily="mono" truncate>
                    {d.from ? `${d.from} → ${d.to}` : d.to}
                  </Text>
                </Box>
                {own.length > 0 && (
                  <PictureButton
                    label={`Keep ${d.what} as it is now`}
                    onClick={() =>
                      useSheet.setState((s) => ({ locked: new Set([...s.locked, ...own.map((v) => v.key)]) }))
                    }
                  >
                    <Lock size={14} />
                  </PictureButton>
                )}
              </Flex>
            );
          })}
          {said.length > MOST_SAID && (
            <Text fontSize="12px" color="muted" mt="1">
              and {said.length - MOST_SAID} more
            </Text>
          )}
        </>
      )}
    </>
  );
}

function Two({ a, b }: { a: Tile; b: Tile }) {
  const tiles = useSheet((s) => s.tiles);
  const reach = useSheet((s) => s.reach);
  const said = useMemo(() => differences(a.piece, b.piece), [a, b]);
  return (
    <>
      <Flex gap="2">
        {[a, b].map((t) => (
          <Box key={t.id} flex="1" borderRadius="card" overflow="hidden">
            <StripCanvas strip={t.strip} loop={t.piece.loop} label={`${tileName(t, tiles)}, playing`} />
          </Box>
        ))}
      </Flex>
      <Heading as="h3" fontFamily="heading" fontSize="15px" mt="3">
        {tileName(a, tiles)} and {tileName(b, tiles)}
      </Heading>
      <Text fontSize="12.5px" color="muted" mt="1">
        {said.length} {said.length === 1 ? 'value differs' : 'values differ'} between them.
      </Text>
      <StrongButton w="100%" mt="3" onClick={() => goOnFrom(a.piece, { type: 'mix', a: a.piece, b: b.piece }, reach)}>
        Mix the two
      </StrongButton>
    </>
  );
}

function makeThePiece(piece: Piece, name: string): void {
  useEditor.getState().edit(`Variation ${name}`, (now) => ({ ...piece, name: now.name }));
  closeSheet();
  tell(`Variation ${name} is the piece now.`, { label: 'Undo', onClick: () => useEditor.getState().undo() });
}

function lessLike(tile: Tile): void {
  useSheet.setState((s) => ({ unwanted: [...s.unwanted, tile.signatures], picked: [] }));
}

/** Stores it beside the piece, under a name that tells its origin. */
async function keepIt(piece: Piece, name: string): Promise<void> {
  const { id, piece: now } = useEditor.getState();
  const { seed } = useSheet.getState();
  const called = `Variation ${name} of seed ${seed}`;
  if (await keepAs(id, writePiece({ ...piece, name: now.name }), called)) tellKept(called);
}

async function openBeside(piece: Piece, name: string): Promise<void> {
  try {
    const own = keepable(`${piece.name}, variation ${name}`, LIMITS.nameOfPiece);
    const made = await createPiece(writePiece({ ...piece, name: own }));
    tell(`“${own}” is on the shelf.`, { label: 'Open', onClick: () => window.open(`/piece/${made.id}`, '_blank') });
  } catch (error) {
    tellTrouble(error instanceof Error ? error.message : 'It could not be kept.');
  }
}
