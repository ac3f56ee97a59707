'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useChoice } from '../parts/use-choice';

interface Option<V extends string> {
  readonly value: V;
  readonly title: string;
  readonly help?: string;
}

interface Props<V extends string> {
  readonly label: string;
  /** The label is read out before them. */
  readonly named?: boolean;
  readonly value: V;
  readonly options: readonly Option<V>[];
  readonly onChange: (value: V) => void;
  readonly children?: ReactNode;
}

/** A bar over the picture with a few ways to look at it. */
export function BarChoice<V extends string>({ label, named, value, options, onChange, children }: Props<V>) {
  const { group, option } = useChoice(
    options.map((o) => o.value),
    value,
    onChange,
  );
  return (
    <Flex
      align="center"
      bg="panel"
      borderRadius="8px"
      p="3px"
      boxShadow="card"
      pointerEvents="auto"
      fontSize="12.5px"
      gap="0.5"
    >
      <Flex {...group} aria-label={label} align="center" gap={named ? '0.5' : '0'}>
        {named && (
          <Text color="muted" ml="2" mr="1.5">
            {label}
          </Text>
        )}
        {options.map((o) => (
          <chakra.button
            key={o.value}
            {...option(o.value)}
            title={o.help}
            px="2.5"
            py="1"
            borderRadius="6px"
            fontWeight="600"
            bg={o.value === value ? 'ink' : undefined}
            color={o.value === value ? 'inverse' : 'ink'}
            cursor="pointer"
          >
            {o.title}
          </chakra.button>
        ))}
      </Flex>
      {children}
    </Flex>
  );
}
