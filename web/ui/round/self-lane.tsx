'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { SelfMoving } from '@maypole/core/piece/self-moving';
import { sample, seriesFor } from '@maypole/core/time/motions/wander';
import { Workflow } from 'lucide-react';
import { memo, useMemo } from 'react';
import { shownColour } from '../parts/shown-colour';
import { showOwner } from '../state/show-value';
import { LaneLabel } from './lane-label';
import { LANE, NAMES, useLaneView, viewFrom } from './lane-view';

const SAMPLES = 380;
const PAD = 7;

/**
 * Height 0…1 of something that moves by itself, at a moment in loops: rising for turns, wandering for noise, a slow
 * swell otherwise.
 */
function heightOf({ how, amount, key }: SelfMoving): (t: number) => number {
  if (how === 'turns')
    return (t) => {
      const x = t * amount;
      return x - Math.floor(x);
    };
  if (how === 'step') return (t) => 0.5 - 0.5 * Math.cos(2 * Math.PI * t);
  // A stand-in for the noise, which is a whole field: a line that changes as often.
  const series = seriesFor(Math.max(0.25, Math.min(64, amount * 2)), 1, key.length);
  return (t) => sample(series, { frame: t * 1000, frames: 1000 }).value;
}

/** The lane of something that moves without a motion: its name leads to its card. */
export const SelfLane = memo(function SelfLane({ self, also }: { self: SelfMoving; also?: string }) {
  const span = useLaneView((s) => s.span);
  const from = useLaneView(viewFrom);
  const path = useMemo(() => {
    const at = heightOf(self);
    let before = 0;
    return Array.from({ length: SAMPLES + 1 }, (_, i) => {
      const y = at(from + (i / SAMPLES) * span);
      // A wrap is drawn as two lines, not as a fall.
      const pen = i === 0 || (self.how === 'turns' && Math.abs(y - before) > 0.5) ? 'M' : 'L';
      before = y;
      return `${pen}${((i / SAMPLES) * 1000).toFixed(1)} ${(PAD + (1 - y) * (LANE - 2 * PAD)).toFixed(2)}`;
    }).join('');
  }, [self, from, span]);
  return (
    <Flex>
      <chakra.button
        type="button"
        display="flex"
        alignItems="center"
        gap="1.5"
        w={`${NAMES}px`}
        h={`${LANE}px`}
        pl="1.5"
        pr="2.5"
        textAlign="left"
        cursor="pointer"
        aria-label={`${self.title}, ${self.words}`}
        title={`${self.place}: ${self.title}. Show its card`}
        onClick={() => showOwner(self.owner)}
      >
        <Box color="muted" flexShrink={0}>
          <Workflow size={13} />
        </Box>
        <Box w="4px" h="20px" borderRadius="full" bg={shownColour(self.colour)} flexShrink={0} />
        <LaneLabel of={self.of} name={self.name} also={also} />
        <Text fontFamily="mono" fontSize="11px" color="muted" whiteSpace="nowrap">
          {self.words}
        </Text>
      </chakra.button>
      <Box flex="1" minW="0">
        <svg
          width="100%"
          height={LANE}
          viewBox={`0 0 1000 ${LANE}`}
          preserveAspectRatio="none"
          role="img"
          aria-label={`${self.title} over the loop`}
          style={{ display: 'block' }}
        >
          <path
            d={path}
            fill="none"
            stroke={shownColour(self.colour)}
            strokeWidth="1.5"
            strokeDasharray={self.how === 'turns' ? undefined : '2 3'}
            vectorEffect="non-scaling-stroke"
            opacity="0.8"
          />
        </svg>
      </Box>
    </Flex>
  );
});
