'use client';

import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { partsOf, presets, type Preset } from '@maypole/core/finish/presets';
import type { FaceKind } from '@maypole/core/finish/surface';
import { SwatchBook } from 'lucide-react';
import { useEffect, useState } from 'react';
import { drawBalls, SHEET } from '@/engine/draw/balls';
import { focusAfterClosing } from '../parts/focus-after';
import { useEditor } from '../state/store';

const SHOWN = 72;

/** Finishes to begin with, drawn as balls in the piece's light. Once chosen, it is an ordinary finish. */
export function PresetPicker({ ribbon, of }: { ribbon: string; of: FaceKind }) {
  const [open, setOpen] = useState(false);
  const choose = (preset: Preset) => {
    setOpen(false);
    useEditor.getState().editRibbon(`Finish: ${preset.title.toLowerCase()}`, ribbon, (r) => ({
      ...r,
      finishes: r.finishes.map((f) => (f.of === of ? { ...f, parts: partsOf(preset) } : f)),
    }));
  };
  return (
    <Popover.Root
      finalFocusEl={focusAfterClosing}
      open={open}
      onOpenChange={(d) => setOpen(d.open)}
      positioning={{ placement: 'right-start', gutter: 12, strategy: 'fixed', overflowPadding: 8 }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger asChild>
        <chakra.button
          type="button"
          aria-label="Choose a finish"
          display="flex"
          alignItems="center"
          gap="2"
          w="100%"
          h="28px"
          px="2"
          mb="1"
          borderRadius="field"
          borderWidth="1px"
          borderColor="line"
          fontSize="12.5px"
          fontWeight="500"
          cursor="pointer"
          _hover={{ borderColor: 'lineStrong' }}
        >
          <SwatchBook size={14} />
          Begin with…
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            w="auto"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label="Finishes"
          >
            <Popover.Body p="2.5">
              <Balls onChoose={choose} />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** Pictures are cached while the light is the same. */
let kept: { scene: unknown; url: string } | null = null;

function Balls({ onChoose }: { onChoose: (preset: Preset) => void }) {
  const scene = useEditor((s) => s.piece.scene);
  const [sheet, setSheet] = useState(kept?.scene === scene ? kept.url : null);
  useEffect(() => {
    if (kept?.scene === scene) return;
    let ended = false;
    void drawBalls(presets, scene).then(
      (blob) => {
        if (kept) URL.revokeObjectURL(kept.url);
        kept = { scene, url: URL.createObjectURL(blob) };
        if (!ended) setSheet(kept.url);
      },
      (error: unknown) => console.warn(error),
    );
    return () => {
      ended = true;
    };
  }, [scene]);
  const down = Math.ceil(presets.length / SHEET.across);
  return (
    <Box display="grid" gridTemplateColumns={`repeat(${SHEET.across}, ${SHOWN + 8}px)`} gap="1">
      {presets.map((p, i) => (
        <chakra.button
          key={p.id}
          type="button"
          aria-label={p.title}
          onClick={() => onChoose(p)}
          borderRadius="8px"
          p="1"
          pb="1.5"
          cursor="pointer"
          _hover={{ bg: 'field' }}
          _focusVisible={{ bg: 'field' }}
        >
          <Flex
            w={`${SHOWN}px`}
            h={`${SHOWN}px`}
            borderRadius="7px"
            bg="field"
            style={
              sheet
                ? {
                    backgroundImage: `url(${sheet})`,
                    backgroundSize: `${SHEET.across * SHOWN}px ${down * SHOWN}px`,
                    backgroundPosition: `${-(i % SHEET.across) * SHOWN}px ${-Math.floor(i / SHEET.across) * SHOWN}px`,
                  }
                : undefined
            }
          />
          <Text fontSize="11.5px" mt="1" lineHeight="1.2">
            {p.title}
          </Text>
        </chakra.button>
      ))}
    </Box>
  );
}
