'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { PictureButton } from '../parts/buttons';
import { useOverEditor } from '../state/over-editor';
import { SheetActions } from './sheet-actions';
import { SheetCloser, tileName } from './sheet-closer';
import { SheetSettings } from './sheet-settings';
import { closeSheet, useSheet, type LeftOut } from './sheet-store';
import { SheetTile } from './sheet-tile';
import { drawSheet, gridOf, LOOPS, stopSheet } from './sheet-work';

/** Milliseconds after a change of settings until the sheet is redrawn. */
const SETTLE = 350;

/** A sheet of small loops, each a variation of the piece. Covers the editor, which is paused. */
export function Sheet() {
  const { base, chosen, locked, reach, count, seed, way, unwanted, tiles, working, left, plain } = useSheet();
  const grid = useRef<HTMLDivElement>(null);
  const fresh = useRef(true);
  useEffect(() => {
    // The tiles shown belong to other settings from now on, and must not be stored or saved as if they belonged to
    // these.
    if (!fresh.current) useSheet.setState({ working: 'Drawing' });
    // The first is drawn at once.
    const timer = setTimeout(() => void drawSheet(), fresh.current ? 0 : SETTLE);
    fresh.current = false;
    return () => {
      clearTimeout(timer);
      stopSheet();
    };
  }, [base, chosen, locked, reach, count, seed, way, unwanted]);
  useOverEditor(closeSheet);
  const columns = way.type === 'axes' && way.down ? gridOf(count)[0] : undefined;
  const made = tiles.filter((t) => t.index >= 0).length;
  const [shape] = tiles;
  const least = shape && shape.strip.width < shape.strip.height ? 120 : 150;
  return (
    <Flex
      role="region"
      aria-label="Sheet of variations"
      position="absolute"
      inset="52px 0 0 0"
      zIndex="docked"
      bg="paper"
      data-testid="sheet"
      data-working={working !== null}
    >
      <SheetSettings />
      <Flex direction="column" flex="1" minW="0">
        <Flex align="center" gap="3" px="4" h="44px" flexShrink={0}>
          <Text role="status" fontSize="12.5px" color="muted" flex="1" truncate>
            {statusOf(made, count, left, working)}
            {plain && ' · drawn plainly, since the processor draws'}
          </Text>
          <SheetActions />
          <PictureButton label="Close the sheet" onClick={closeSheet}>
            <X size={17} />
          </PictureButton>
        </Flex>
        <Box flex="1" overflowY="auto" px="4" pb="4">
          <Box
            ref={grid}
            display="grid"
            gap="3"
            gridTemplateColumns={
              columns ? `repeat(${columns}, minmax(0, 1fr))` : `repeat(auto-fill, minmax(${least}px, 1fr))`
            }
          >
            {tiles.map((t) => (
              <SheetTile key={`${seed}-${t.id}`} tile={t} name={tileName(t, tiles)} />
            ))}
          </Box>
        </Box>
      </Flex>
      <SheetCloser />
    </Flex>
  );
}

function statusOf(made: number, count: number, left: LeftOut, working: string | null): string {
  const parts = [
    working === LOOPS
      ? `${made} variations, drawing their loops`
      : working === 'Drawing' && made < count
        ? `${made} of ${count}, drawing`
        : (working ?? `${made} variations`),
  ];
  if (left.alike > 0) parts.push(`${left.alike} left out as alike`);
  if (left.open > 0) parts.push(`${left.open} that would not close left out`);
  if (left.heavy > 0) parts.push(`${left.heavy} that take too much work left out`);
  if (left.size > 0) parts.push(`${left.size} far too large or small left out`);
  return parts.join(' · ');
}
