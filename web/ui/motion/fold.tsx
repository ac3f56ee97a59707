'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState, type ReactNode } from 'react';

/** A collapsible part of a panel; `note` summarises its content. */
export function Fold({
  title,
  note,
  initially = false,
  children,
}: {
  title: string;
  note?: string;
  initially?: boolean;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(initially);
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="2.5" pt="1">
      <chakra.button type="button" aria-expanded={open} onClick={() => setOpen(!open)} w="100%" cursor="pointer" py="1">
        <Flex align="center" gap="1.5">
          {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
          <Text fontSize="12.5px" fontWeight="600">
            {title}
          </Text>
          {note && (
            <Text fontSize="12px" color="muted" truncate>
              {note}
            </Text>
          )}
        </Flex>
      </chakra.button>
      {open && <Box pb="1">{children}</Box>}
    </Box>
  );
}
