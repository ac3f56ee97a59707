'use client';

import { Box, Heading, Text } from '@chakra-ui/react';
import { useEffect } from 'react';
import { KEY_COOKIE } from '@/contract/key-cookie';
import { lend, stopLending, useLending } from './lending';

/** A page that only draws for others, for a headless browser. Its key is in the fragment of its address. */
export function LendPage() {
  const { on, drawn, trouble } = useLending();
  useEffect(() => {
    const given = new URLSearchParams(location.hash.slice(1));
    const key = given.get('key') ?? undefined;
    // Workers fetch the files of a piece, and send the browser's cookies.
    if (key) document.cookie = `${KEY_COOKIE}=${key}; path=/api/assets; SameSite=Strict`;
    lend(true, { key, name: given.get('name') ?? undefined });
    return () => stopLending(false);
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
