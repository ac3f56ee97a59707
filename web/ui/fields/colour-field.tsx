'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { hexOf } from '@maypole/core/time/colours/css-colour';
import { useRef, useState } from 'react';
import { ColourSwatches } from './colour-swatches';
import { useLive } from '../state/live';
import type { EditorState } from '../state/store';
import { newDrag } from '../state/undo';

/** A colour: by picker, as CSS writes it, from the picture, or one that the piece has already. */
export function ColourField({
  label,
  value,
  live,
  driven,
  onDriven,
  onChange,
}: {
  label: string;
  value: string;
  /** If a motion drives it: its colour at each frame, instead of `value`. */
  live?: (s: EditorState) => string;
  driven?: boolean;
  onDriven?: () => void;
  onChange: (value: string, gesture: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = useLive<HTMLDivElement, string>(live ?? (() => value), (element, now) => {
    element.style.setProperty('--shown', now);
    const words = element.querySelector<HTMLInputElement>('input[data-words]');
    if (live && words) words.value = now.toUpperCase();
  });
  const [near, setNear] = useState(false);
  /** Colours tried while the picker is open are one edit. */
  const picking = useRef('');
  const read = typed === null ? null : hexOf(typed);
  const sound = typed === null || read !== null;
  const set = (hex: string, how: string) => onChange(hex.toUpperCase(), how);
  return (
    <Box
      flex="1"
      minW="0"
      position="relative"
      data-colour
      onBlur={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget)) setNear(false);
      }}
    >
      <Flex ref={shown} flex="1" minW="0" h="24px" bg="field" borderRadius="field" align="center" overflow="hidden">
        <Box
          position="relative"
          w="30px"
          h="100%"
          bg="var(--shown)"
          borderRightWidth="1px"
          borderColor="line"
          flexShrink={0}
        >
          {!driven && (
            <chakra.input
              type="color"
              aria-label={label}
              value={value}
              onClick={() => (picking.current = `pick/${newDrag()}`)}
              onChange={(e) => onChange(e.target.value, picking.current || 'pick')}
              position="absolute"
              inset="0"
              opacity="0"
              w="100%"
              h="100%"
              cursor="pointer"
            />
          )}
        </Box>
        <chakra.input
          aria-label={`${label}, as text`}
          readOnly={driven}
          onClick={driven ? onDriven : undefined}
          aria-invalid={!sound}
          title={sound ? undefined : `“${typed}” is no colour; write #rrggbb, a CSS name or rgb(…), hsl(…), oklch(…).`}
          data-words
          key={live ? 'moving' : 'still'}
          // A moving colour is written into the element at every frame.
          {...(live ? { defaultValue: '' } : { value: typed ?? value.toUpperCase() })}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={() => {
            if (read !== null) set(read, `typed-${typed}`);
            setTyped(null);
          }}
          onFocus={() => setNear(!driven)}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') e.currentTarget.blur();
            if (e.key === 'Escape') setTyped(null);
            if (e.key === 'ArrowDown' && near) {
              e.preventDefault();
              e.currentTarget.closest('[data-colour]')?.querySelector<HTMLElement>('[data-swatches] button')?.focus();
            }
          }}
          bg="transparent"
          color={sound ? 'ink' : 'poppyText'}
          w="100%"
          px="2"
          fontFamily="mono"
          fontSize="12px"
          fontWeight="600"
          outline="none"
        />
      </Flex>
      {near && <ColourSwatches label={label} onChoose={(hex) => set(hex, 'swatch')} />}
    </Box>
  );
}
