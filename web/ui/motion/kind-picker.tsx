'use client';

import { Flex, chakra } from '@chakra-ui/react';

interface Kind {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
}

/** The kinds of motion side by side. */
export function KindPicker({ kinds, chosen, onChoose }: { kinds: readonly Kind[]; chosen: string; onChoose: (kind: string) => void }) {
  return (
    <Flex role="radiogroup" aria-label="Kind of motion" bg="field" borderRadius="8px" p="3px" gap="1px">
      {kinds.map((m) => (
        <chakra.button
          key={m.kind}
          type="button"
          role="radio"
          aria-checked={m.kind === chosen}
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
          onClick={() => onChoose(m.kind)}
        >
          {m.title}
        </chakra.button>
      ))}
    </Flex>
  );
}
