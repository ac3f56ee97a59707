'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { guidePages } from '@maypole/core/guide/pages';
import { Logo } from '../parts/logo';
import { ModeButton } from '../parts/mode-button';

const PAGES = [
  { href: '/guide', title: 'Walks' },
  ...guidePages.map((p) => ({ href: `/guide/${p.id}`, title: p.title })),
  { href: '/guide/words', title: 'Words' },
];

/** Layout of the guide: the list of pages at the left, the article beside it. */
export function GuideFrame({ at, children }: { at: string; children: ReactNode }) {
  return (
    <Box minH="100vh" bg="paper">
      <Flex
        as="header"
        h="52px"
        align="center"
        px="4"
        gap="3"
        bg="panel"
        borderBottomWidth="1px"
        borderColor="line"
        position="sticky"
        top="0"
        zIndex="10"
      >
        <Link href="/" aria-label="Back to the shelf">
          <Logo />
        </Link>
        <Text fontFamily="heading" fontWeight="700" fontSize="18px">
          Guide
        </Text>
        <Box flex="1" />
        <ModeButton />
      </Flex>
      <Flex maxW="1180px" mx="auto" px="5" gap="8" align="flex-start" wrap={{ base: 'wrap', md: 'nowrap' }}>
        <Flex
          as="nav"
          aria-label="Pages of the guide"
          direction={{ base: 'row', md: 'column' }}
          wrap="wrap"
          w={{ base: '100%', md: '170px' }}
          flexShrink={0}
          pt="6"
          gap="0.5"
          position={{ md: 'sticky' }}
          top="52px"
        >
          {PAGES.map(({ href, title }) => (
            <Link key={href} href={href} aria-current={href === at ? 'page' : undefined}>
              <Box
                px="2.5"
                py="1"
                fontSize="13.5px"
                borderRadius="field"
                fontWeight={href === at ? 600 : 400}
                bg={href === at ? 'field' : undefined}
                _hover={{ bg: 'field' }}
              >
                {title}
              </Box>
            </Link>
          ))}
        </Flex>
        <Box as="main" flex="1" minW="0" pt="6" pb="16">
          {children}
        </Box>
      </Flex>
    </Box>
  );
}
