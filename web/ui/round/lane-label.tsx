'use client';

import { Text } from '@chakra-ui/react';

/** "Twist · Angle", and the ribbon if another lane would read the same. */
export function LaneLabel({ of, name, also }: { of: string; name: string; also?: string }) {
  return (
    <Text fontSize="12.5px" truncate flex="1">
      <Text as="span" color="muted">
        {of}
        {name && ' · '}
      </Text>
      {name}
      {also && (
        <Text as="span" color="muted">
          {' '}
          · {also}
        </Text>
      )}
    </Text>
  );
}
