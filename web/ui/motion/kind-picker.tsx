'use client';

import { Flex, chakra } from '@chakra-ui/react';
import { useChoice } from '../parts/use-choice';

interface Kind {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
}

/** The kinds of motion side by side. */
export function KindPicker({
  kinds,
  chosen,
  onChoose,
}: {
  kinds: readonly Kind[];
  chosen: string;
  onChoose: (kind: string) => void;
}) {
  const { group, option } = useChoice(
    kinds.map((k) => k.kind),
    chosen,
    onChoose,
  );
  return (
    <Flex {...group} aria-label="Kind of motion" bg="field" borderRadius="8px" p="3px" gap="1px">
      {kinds.map((m) => (
        <chakra.button
          key={m.kind}
          {...option(m.kind)}
          title={m.help}
          flex="1 1 auto"
          px="1"
          py="1"
          borderRadius="6px"
          fontSize="12px"
          fontWeight={m.kind === chosen ? 600 : 500}
          bg={m.kind === chosen ? 'raised' : undefined}
          boxShadow={m.kind === chosen ? 'card' : undefined}
          color={m.kind === chosen ? 'ink' : 'muted'}
          cursor="pointer"
          whiteSpace="nowrap"
        >
          {m.title}
        </chakra.button>
      ))}
    </Flex>
  );
}
