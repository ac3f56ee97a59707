'use client';

import { Box } from '@chakra-ui/react';
import { keyframes } from '@emotion/react';
import { START_STRIP } from '@maypole/core/starts/strip';

const { frames } = START_STRIP;
// Of pictures side by side, picture i is at i / (frames − 1) of the way.
const play = keyframes({
  from: { backgroundPositionX: '0%' },
  to: { backgroundPositionX: `${(100 * frames) / (frames - 1)}%` },
});

/** The playing preview of a starting point; its first frame with reduced motion. */
export function StartStrip({ id, seconds }: { id: string; seconds: number }) {
  return (
    <Box
      aspectRatio="1"
      bg="field"
      backgroundImage={`url(/starts/${id}.webp)`}
      backgroundSize={`${frames * 100}% 100%`}
      css={{
        animation: `${play} ${seconds}s steps(${frames}) infinite`,
        '@media (prefers-reduced-motion: reduce)': { animation: 'none' },
      }}
    />
  );
}
