'use client';

import { Box } from '@chakra-ui/react';
import type { Queue } from '@/contract/renders';
import { goesOn } from './awaited';

/** Says that the disk is full if something waits for space. */
export function WaitsForRoom({ queue }: { queue: Queue | null }) {
  if (!queue?.waits || !queue.renders.some(goesOn)) return null;
  return (
    <Box
      role="alert"
      mb="3"
      px="3"
      py="2.5"
      borderRadius="card"
      bg="marigoldWash"
      color="marigoldText"
      fontSize="13px"
      lineHeight="1.5"
    >
      {queue.waits}
    </Box>
  );
}
