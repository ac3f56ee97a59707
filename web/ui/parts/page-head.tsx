import { Box, Flex, Heading, Link } from '@chakra-ui/react';
import { ModeButton } from './mode-button';

/** The head of a page: the way back, colour mode, and title. */
export function PageHead({ title, space }: { title: string; space: string }) {
  return (
    <>
      <Flex align="center">
        <Link href="/" color="ink">
          All pieces
        </Link>
        <Box flex="1" />
        <ModeButton />
      </Flex>
      <Heading as="h1" fontFamily="heading" fontSize="28px" mt="3" mb={space} truncate>
        {title}
      </Heading>
    </>
  );
}
