'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { Problem } from '@maypole/core/evaluate/ribbon';
import { Hourglass, TriangleAlert } from 'lucide-react';
import { PlainButton } from '../parts/buttons';
import { session } from '../state/session';

/** Why a step does nothing: it cannot, or it waits because it is expensive. */
export function StepTrouble({ problem, ribbonId }: { problem: Problem; ribbonId: string }) {
  const { waits } = problem;
  return (
    <Flex
      role="alert"
      gap="2"
      mx="2"
      mb="2"
      px="2.5"
      py="2"
      bg={waits ? 'marigoldWash' : 'poppyWash'}
      color={waits ? 'marigoldText' : 'poppyText'}
      fontSize="12px"
      borderRadius="field"
      lineHeight="1.4"
    >
      <Box flexShrink={0} mt="1px">
        {waits ? <Hourglass size={14} /> : <TriangleAlert size={14} />}
      </Box>
      <Box>
        {problem.message}
        {waits && (
          <PlainButton size="2xs" mt="1.5" display="block" onClick={() => session()?.engine.allow(ribbonId)}>
            Work it out
          </PlainButton>
        )}
      </Box>
    </Flex>
  );
}
