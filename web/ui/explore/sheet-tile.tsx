'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { memo } from 'react';
import { StripCanvas } from './strip-canvas';
import { useSheet, type Tile } from './sheet-store';

/** A playing variation. A click opens it; with Ctrl or Shift it is selected too, to be mixed. */
export const SheetTile = memo(function SheetTile({ tile, name }: { tile: Tile; name: string }) {
  const picked = useSheet((s) => s.picked.includes(tile.id));
  const pick = (besides: boolean) =>
    useSheet.setState((s) => ({
      picked: besides && !s.picked.includes(tile.id) ? [...s.picked, tile.id].slice(-2) : [tile.id],
    }));
  return (
    <chakra.button
      type="button"
      data-testid="tile"
      aria-pressed={picked}
      aria-label={name}
      textAlign="left"
      borderRadius="card"
      overflow="hidden"
      bg="raised"
      outline="2px solid"
      outlineColor={picked ? 'ink' : 'transparent'}
      outlineOffset="1px"
      shadow="card"
      onClick={(e) => pick(e.ctrlKey || e.metaKey || e.shiftKey)}
    >
      <StripCanvas strip={tile.strip} loop={tile.piece.loop} label="" />
      <Flex px="2" py="1" justify="space-between" fontSize="11.5px">
        <Text fontWeight={tile.index < 0 ? '700' : '500'}>{name}</Text>
        {tile.index >= 0 && (
          <Text color="muted" fontSize="11px" title="How much its picture differs from that of now; 0 is the same">
            differs by {tile.distance.toFixed(1)}
          </Text>
        )}
      </Flex>
    </chakra.button>
  );
});
