'use client';

import { Box, Flex } from '@chakra-ui/react';
import { wrapFrame } from '@maypole/core/time/loop';
import { memo } from 'react';
import { useEditor } from '../state/store';
import { NAMES, useLaneView, viewFrom } from './lane-view';
import { Playhead, scrub } from './playhead';

const STEPS = [1, 2, 5, 10, 20, 25, 50, 100, 200, 500, 1000, 2000, 5000];

/** Frame numbers over the lanes; drag along it to scrub. */
export const Ruler = memo(function Ruler() {
  const frames = useEditor((s) => s.piece.loop.frames);
  const from = useLaneView(viewFrom);
  const span = useLaneView((s) => s.span);
  // About a dozen numbers, at round frames counted from each seam.
  const step = STEPS.find((s) => (span * frames) / s <= 14) ?? 10_000;
  const marks: number[] = [];
  for (let k = Math.floor(from); k <= Math.ceil(from + span); k++)
    for (let f = 0; f < frames; f += step) {
      const t = k + f / frames;
      // The last number before a seam would overlap the seam's own.
      if (t >= from && t <= from + span && (f === 0 || frames - f >= step * 0.6)) marks.push(t);
    }
  return (
    <Flex h="17px" flexShrink={0} borderBottomWidth="1px" borderColor="line">
      <Box w={`${NAMES}px`} flexShrink={0} />
      <Box
        flex="1"
        position="relative"
        overflow="hidden"
        cursor="ew-resize"
        touchAction="none"
        onPointerDown={scrub}
        onPointerMove={scrub}
        aria-hidden="true"
      >
        {marks.map((t) => {
          const f = Math.round(wrapFrame(t * frames, frames)) % frames;
          return (
            <Box
              key={t}
              position="absolute"
              top="0"
              fontFamily="mono"
              fontSize="10px"
              lineHeight="16px"
              color={f === 0 ? 'ink' : 'muted'}
              fontWeight={f === 0 ? 700 : 400}
              transform="translateX(-50%)"
              style={{ left: `${((t - from) / span) * 100}%` }}
            >
              {f}
            </Box>
          );
        })}
        <Playhead top="12px" />
      </Box>
    </Flex>
  );
});
