'use client';

import { Box } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

/** A card that floats over the page without blocking it. */
export function FloatCard(props: ComponentProps<typeof Box>) {
  return (
    <Box
      role="region"
      position="fixed"
      zIndex="toast"
      p="3.5"
      bg="raised"
      color="ink"
      borderRadius="12px"
      borderWidth="1px"
      borderColor="lineStrong"
      boxShadow="float"
      {...props}
    />
  );
}
