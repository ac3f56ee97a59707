'use client';

import { Flex, chakra } from '@chakra-ui/react';
import { coloursIn } from '@maypole/core/piece/colours';
import { Pipette } from 'lucide-react';
import { useMemo, type KeyboardEvent } from 'react';
import { useEditor } from '../state/store';

/** Most colours offered. */
const MOST = 14;

/** Takes a colour from anywhere on the screen (WICG EyeDropper API); absent in some browsers. */
type Dropper = new () => { open(): Promise<{ readonly sRGBHex: string }> };
const dropper = () => (globalThis as { EyeDropper?: Dropper }).EyeDropper;

/** The arrows go from one to the next. */
function move(event: KeyboardEvent<HTMLElement>): void {
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
  event.stopPropagation();
  if (by === undefined) return;
  event.preventDefault();
  const all = [...event.currentTarget.querySelectorAll('button')];
  all[(all.indexOf(document.activeElement as HTMLButtonElement) + by + all.length) % all.length]?.focus();
}

/** The colours that a piece has already, the most frequent first, and one from the picture. */
export function ColourSwatches({ label, onChoose }: { label: string; onChoose: (hex: string) => void }) {
  const piece = useEditor((s) => s.piece);
  const colours = useMemo(() => coloursIn(piece).slice(0, MOST), [piece]);
  const Dropper = dropper();
  const take = () => {
    // Escape takes none.
    if (Dropper)
      void new Dropper().open().then(
        ({ sRGBHex }) => onChoose(sRGBHex),
        () => undefined,
      );
  };
  return (
    <Flex
      position="absolute"
      top="27px"
      left="0"
      zIndex="docked"
      w="124px"
      wrap="wrap"
      gap="1"
      p="1.5"
      bg="panel"
      borderRadius="8px"
      borderWidth="1px"
      borderColor="line"
      boxShadow="float"
      data-swatches
      role="group"
      aria-label={`Colours of the piece, for ${label}`}
      onKeyDown={move}
      // The field keeps the focus, and with it this list.
      onMouseDown={(e) => e.preventDefault()}
    >
      {colours.map((hex) => (
        <chakra.button
          key={hex}
          type="button"
          tabIndex={-1}
          aria-label={`${label}: ${hex}, as elsewhere in the piece`}
          title={hex.toUpperCase()}
          w="24px"
          h="24px"
          borderRadius="5px"
          borderWidth="1px"
          borderColor="line"
          cursor="pointer"
          style={{ background: hex }}
          onClick={() => onChoose(hex)}
        />
      ))}
      {Dropper && (
        <chakra.button
          type="button"
          tabIndex={-1}
          aria-label={`${label}: take it from the picture`}
          title="Take it from the picture"
          w="24px"
          h="24px"
          display="grid"
          placeItems="center"
          borderRadius="5px"
          cursor="pointer"
          _hover={{ bg: 'field' }}
          onClick={take}
        >
          <Pipette size={14} />
        </chakra.button>
      )}
    </Flex>
  );
}
