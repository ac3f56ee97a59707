'use client';

import { Box, Portal } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useExplainer } from './open-stores';

/** Milliseconds for which the keyboard rests on a value before it is explained. */
const RESTS = 1200;
/** Width of a hint, and its distance to the row and to the edge, in pixels. */
const [WIDTH, GAP, EDGE] = [230, 6, 8];

interface Hint {
  readonly words: string;
  readonly left: number;
  readonly top: number;
}

/** Explains the value that the keyboard rests on, as hovering does for the mouse. */
export function FocusHint() {
  const [hint, setHint] = useState<Hint | null>(null);
  const explains = useExplainer((s) => s.open);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    let row: Element | null = null;
    const rest = () => {
      clearTimeout(timer);
      setHint(null);
      const at = row;
      if (at) timer = setTimeout(() => setHint(hintFor(at)), RESTS);
    };
    const away = () => {
      row = null;
      rest();
    };
    const onFocus = ({ target }: FocusEvent) => {
      row = target instanceof Element && target.matches(':focus-visible') ? target.closest('[data-help]') : null;
      rest();
    };
    document.addEventListener('focusin', onFocus);
    document.addEventListener('keydown', away);
    document.addEventListener('pointerdown', away);
    // A field that gets focus is scrolled into sight: the keyboard rests on it once that is over.
    document.addEventListener('scroll', rest, true);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('focusin', onFocus);
      document.removeEventListener('keydown', away);
      document.removeEventListener('pointerdown', away);
      document.removeEventListener('scroll', rest, true);
    };
  }, []);
  if (!hint || explains) return null;
  return (
    <Portal>
      <Box
        role="tooltip"
        position="fixed"
        zIndex="tooltip"
        px="2.5"
        py="1.5"
        bg="ink"
        color="inverse"
        borderRadius="field"
        fontSize="12px"
        lineHeight="1.4"
        pointerEvents="none"
        style={{ left: hint.left, top: hint.top, maxWidth: WIDTH }}
      >
        {hint.words}
      </Box>
    </Portal>
  );
}

/** Beside the row where there is room, else under it. */
function hintFor(row: Element): Hint {
  const { left, right, top, bottom } = row.getBoundingClientRect();
  const words = row.getAttribute('data-help')!;
  return right + GAP + WIDTH + EDGE < window.innerWidth
    ? { words, left: right + GAP, top }
    : { words, left: Math.max(EDGE, Math.min(left, window.innerWidth - WIDTH - EDGE)), top: bottom + GAP };
}
