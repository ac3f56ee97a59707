'use client';

import { Box, Heading, Text } from '@chakra-ui/react';
import { useEffect } from 'react';
import { lend, stopLending, useLending } from './lending';

/** A page that does nothing but draw for others, for a browser without a window. Its key stands behind the # of its address. */
export function LendPage() {
  const { on, drawn, trouble } = useLending();
  useEffect(() => {
    const given = new URLSearchParams(location.hash.slice(1));
    lend(true, { key: given.get('key') ?? undefined, name: given.get('name') ?? undefined });
    return stopLending;
  }, []);
  return (
    <Box minH="100vh" bg="paper" p="8">
      <Heading as="h1" fontFamily="heading" fontSize="24px">
        This browser draws
      </Heading>
      <Text mt="2" color={trouble ? 'poppyText' : 'muted'} role="status" data-testid="lending">
        {trouble ?? (on ? `${drawn} ${drawn === 1 ? 'frame' : 'frames'} so far.` : 'Not just now.')}
      </Text>
    </Box>
  );
}
