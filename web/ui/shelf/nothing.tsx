'use client';

import { Flex, Text } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { StrongButton } from '../parts/buttons';
import type { View } from './use-pieces';

/** What an empty list says. */
export function Nothing({
  view,
  searched,
  sorted,
  onBegin,
}: {
  view: View;
  searched: boolean;
  /** Only some kinds of pieces are shown. */
  sorted: boolean;
  onBegin: () => void;
}) {
  return (
    <Flex direction="column" align="center" gap="4" py="24" textAlign="center">
      <Text fontFamily="heading" fontWeight="700" fontSize="19px">
        {searched
          ? 'No piece of that name'
          : sorted
            ? 'No piece of that kind'
            : view === 'bin'
              ? 'The bin is empty'
              : 'The shelf is empty'}
      </Text>
      {!searched && !sorted && view === 'all' && (
        <>
          <Text color="muted" maxW="380px" lineHeight="1.55">
            A piece is one loop: forms that move and meet themselves again. Begin one, or drop piece files or a folder
            here.
          </Text>
          <StrongButton onClick={onBegin}>
            <Plus size={16} />
            New loop
          </StrongButton>
        </>
      )}
    </Flex>
  );
}
