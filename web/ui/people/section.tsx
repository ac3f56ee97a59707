import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A section of a page, on a card. */
export function Section({ title, help, children }: { title: string; help?: string; children: ReactNode }) {
  return (
    <Box
      as="section"
      aria-label={title}
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="12px"
      p="5"
      mb="5"
    >
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {title}
      </Heading>
      {help && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5" mt="1">
          {help}
        </Text>
      )}
      <Box mt="3">{children}</Box>
    </Box>
  );
}

/** A list row with its actions at the end. */
export function Row({
  name,
  detail,
  faint,
  children,
}: {
  name: string;
  detail: string;
  faint?: boolean;
  children?: ReactNode;
}) {
  return (
    <Flex align="center" gap="3" py="2" borderTopWidth="1px" borderColor="line">
      <Box flex="1" minW="0">
        <Text fontSize="14px" fontWeight="600" color={faint ? 'muted' : 'ink'} truncate>
          {name}
        </Text>
        <Text fontSize="12.5px" color="muted" truncate>
          {detail}
        </Text>
      </Box>
      {children}
    </Flex>
  );
}
