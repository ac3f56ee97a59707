'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';

/** Step of the arrow keys, as a share of the width. */
const STEP = 0.02;

/**
 * A line over the picture with quick light to its left and true light to its right. It is dragged, or moved by the
 * arrow keys.
 */
export function CompareLine() {
  const line = useRef<HTMLDivElement>(null);
  const [share, setShare] = useState(0.5);
  useEffect(() => {
    const holder = line.current!.parentElement!;
    holder.style.setProperty('--compare', `inset(0 0 0 ${100 * share}%)`);
    return () => void holder.style.removeProperty('--compare');
  }, [share]);
  const held = (x: number) => setShare(Math.max(0, Math.min(1, x)));
  const move = (event: PointerEvent) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = line.current!.parentElement!.getBoundingClientRect();
    held((event.clientX - box.left) / box.width);
  };
  const keys = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    held(share + step);
  };
  return (
    <Box
      ref={line}
      role="slider"
      aria-label="Line between quick light and true light"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * share)}
      tabIndex={0}
      position="absolute"
      top="0"
      bottom="0"
      w="22px"
      ml="-11px"
      cursor="ew-resize"
      touchAction="none"
      style={{ left: `${100 * share}%` }}
      data-testid="compare-line"
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={move}
      onKeyDown={keys}
    >
      <Box
        position="absolute"
        left="10px"
        top="0"
        bottom="0"
        w="2px"
        bg="panel"
        boxShadow="0 0 0 1px rgba(0,0,0,0.35)"
      />
    </Box>
  );
}
