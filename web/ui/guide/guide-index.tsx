'use client';

import { Box, Grid, Heading, Text } from '@chakra-ui/react';
import { walks, type Walk } from '@maypole/core/guide/walks';
import { writePiece } from '@maypole/core/piece/read';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { createPiece } from '../api';
import { StrongButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { GuideFrame } from './guide-frame';
import { beginWalk } from './walk-store';

/** The first page of the guide: six short walks through the real interface. */
export function GuideIndex() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const begin = async (walk: Walk) => {
    setBusy(true);
    try {
      const { id } = await createPiece(writePiece(walk.make()));
      beginWalk(walk.id, id);
      router.push(`/piece/${id}`);
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'The walk could not be begun.');
      setBusy(false);
    }
  };
  return (
    <GuideFrame at="/guide">
      <Heading as="h1" fontFamily="heading" fontSize="27px" fontWeight="700">
        Walks
      </Heading>
      <Text color="muted" mt="1" mb="5" maxW="620px" lineHeight="1.55">
        Each walk takes a few minutes. It points at the real interface, waits until you have done what it asks, and can
        be left at any time. What you make stays on the shelf.
      </Text>
      <Grid templateColumns="repeat(auto-fill, minmax(260px, 1fr))" gap="4">
        {walks.map((walk, i) => (
          <Box
            key={walk.id}
            as="article"
            aria-label={walk.title}
            p="4"
            bg="panel"
            borderWidth="1px"
            borderColor="line"
            borderRadius="14px"
            display="flex"
            flexDirection="column"
            gap="1"
          >
            <Text fontFamily="mono" fontSize="12px" color="muted">
              {i + 1}
            </Text>
            <Heading as="h2" fontFamily="heading" fontSize="17px" fontWeight="700">
              {walk.title}
            </Heading>
            <Text color="muted" fontSize="13.5px" lineHeight="1.5" flex="1">
              {walk.help}
            </Text>
            <StrongButton
              mt="2"
              alignSelf="flex-start"
              size="xs"
              disabled={busy}
              aria-label={`Begin ${walk.title}`}
              onClick={() => void begin(walk)}
            >
              Begin
            </StrongButton>
          </Box>
        ))}
      </Grid>
    </GuideFrame>
  );
}
