'use client';

import { Box } from '@chakra-ui/react';
import { memo, type PointerEvent } from 'react';
import { goTo } from '../state/player';
import { useLive } from '../state/live';
import { useEditor } from '../state/store';
import { mainPart } from './lane-math';
import { useLaneView, viewFrom } from './lane-view';

/** Scrubs across a lane's width. */
export function scrub(event: PointerEvent): void {
  if (event.type === 'pointermove' && event.buttons === 0) return;
  if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
  const box = event.currentTarget.getBoundingClientRect();
  const s = useLaneView.getState();
  const { frames } = useEditor.getState().piece.loop;
  const moment = viewFrom(s) + ((event.clientX - box.left) / box.width) * s.span;
  const frame = Math.round(moment * frames);
  goTo(((frame % frames) + frames) % frames);
}

/** The playhead over the lanes. */
export const Playhead = memo(function Playhead({ top = '0' }: { top?: string }) {
  const frames = useEditor((s) => s.piece.loop.frames);
  const from = useLaneView(viewFrom);
  const span = useLaneView((s) => s.span);
  const [a, b] = mainPart(from, span);
  const bar = useLive<HTMLDivElement, number>(
    (s) => s.frame / frames,
    (element, p) => {
      // It stays in the one full loop, wherever that is scrolled to.
      const place = p >= a && p <= b + 1e-9 ? p : p - Math.ceil(p - b - 1e-9);
      element.style.left = `${((place - from) / span) * 100}%`;
    },
  );
  return <Box ref={bar} position="absolute" top={top} bottom="0" w="2px" ml="-1px" bg="poppy" pointerEvents="none" />;
});
