'use client';

import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Logo } from './logo';

/** A page with one message and a way back. */
export function Notice({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <Flex minH="100vh" align="center" justify="center" bg="paper" p="6">
      <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="14px" p="8" maxW="480px" boxShadow="float">
        <Logo />
        <Heading as="h1" fontFamily="heading" fontSize="22px" mt="4" mb="2">
          {title}
        </Heading>
        <Text color="muted" lineHeight="1.55">
          {children}
        </Text>
        <Flex gap="3" mt="6" align="center">
          {action}
          <Link href="/" style={{ textDecoration: 'underline', textUnderlineOffset: 3 }}>
            Back to the shelf
          </Link>
        </Flex>
      </Box>
    </Flex>
  );
}
