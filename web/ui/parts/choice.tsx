'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useChoice } from './use-choice';

interface Option<V extends string> {
  readonly value: V;
  readonly title: string;
  readonly help?: string;
  readonly icon?: ReactNode;
}

interface Props<V extends string> {
  readonly label: string;
  readonly value: V;
  readonly options: readonly Option<V>[];
  readonly onChange: (value: V) => void;
  /** Side by side in a bar, or as cards with help. */
  readonly direction?: 'row' | 'cards';
  /** Height of a bar in pixels. */
  readonly height?: number;
}

/** A choice of a few, as a bar or as cards. */
export function Choice<V extends string>({
  label,
  value,
  options,
  onChange,
  direction = 'row',
  height = 24,
}: Props<V>) {
  const { group, option } = useChoice(
    options.map((o) => o.value),
    value,
    onChange,
  );
  const common = (o: Option<V>) => ({ ...option(o.value), title: o.help, cursor: 'pointer' }) as const;
  if (direction === 'cards')
    return (
      <Flex {...group} aria-label={label} gap="1.5">
        {options.map((o) => (
          <chakra.button
            key={o.value}
            {...common(o)}
            flex="1"
            minW="0"
            textAlign="left"
            px="2.5"
            py="2"
            borderRadius="card"
            borderWidth="1.5px"
            borderColor={o.value === value ? 'ink' : 'line'}
            bg="raised"
          >
            {o.icon}
            <Text fontWeight="600" fontSize="12.5px" mt="1" lineHeight="1.25">
              {o.title}
            </Text>
            {o.help && (
              <Text fontSize="11.5px" color="muted" lineHeight="1.3">
                {o.help}
              </Text>
            )}
          </chakra.button>
        ))}
      </Flex>
    );
  return (
    <Flex {...group} aria-label={label} bg="field" borderRadius="field" p="2px" flex="1" minW="0">
      {options.map((o) => (
        <chakra.button
          key={o.value}
          {...common(o)}
          flex="1"
          px="1.5"
          h={`${height - 4}px`}
          borderRadius="4px"
          fontSize="11.5px"
          fontWeight="600"
          whiteSpace="nowrap"
          bg={o.value === value ? 'ink' : undefined}
          color={o.value === value ? 'inverse' : 'ink'}
        >
          {o.title}
        </chakra.button>
      ))}
    </Flex>
  );
}
