'use client';

import { Box, chakra, Heading, Link, Text } from '@chakra-ui/react';

/** Third-party works, with the full text of their licences. */
export function NoticesPage({ text }: { text: string }) {
  const [list, ...licences] = text.split(/^## /m);
  const packages = list.split('\n').filter((line) => line.startsWith('- '));
  return (
    <Box maxW="760px" mx="auto" px="6" py="8">
      <Link href="/">All pieces</Link>
      <Heading as="h1" fontSize="28px" mt="4">
        What Maypole is made with
      </Heading>
      <Text color="muted" mt="1" mb="4">
        {packages.length} open-source packages by others, and their licences.
      </Text>
      <chakra.ul columnCount={{ base: 1, md: 2 }} columnGap="8" fontSize="12.5px" mb="8" listStyleType="none">
        {packages.map((line) => (
          <li key={line}>{line.slice(2)}</li>
        ))}
      </chakra.ul>
      {licences.map((licence) => {
        const [of, ...words] = licence.split('\n');
        return (
          <Box key={of} as="section" mb="6">
            <Heading as="h2" fontSize="14px" mb="1">
              {of}
            </Heading>
            <chakra.pre fontSize="11.5px" whiteSpace="pre-wrap" color="muted">
              {words
                .map((line) => line.replace(/^ {4}/, ''))
                .join('\n')
                .trim()}
            </chakra.pre>
          </Box>
        );
      })}
    </Box>
  );
}
