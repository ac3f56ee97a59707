'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { useRef, type KeyboardEvent, type ReactNode } from 'react';

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
  /** Beside each other in one bar, or as cards with their help. */
  readonly direction?: 'row' | 'cards';
  /** Height of a bar in pixels. */
  readonly height?: number;
}

/**
 * One of few things: a radio group that is one stop of the Tab key, gone through with the arrow keys
 * (WAI-ARIA Authoring Practices, radio group).
 */
export function Choice<V extends string>({ label, value, options, onChange, direction = 'row', height = 24 }: Props<V>) {
  const group = useRef<HTMLDivElement>(null);
  const keys = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    const now = options.findIndex((o) => o.value === value);
    const next = event.key === 'Home' ? 0 : event.key === 'End' ? options.length - 1 : step === undefined ? -1 : (now + step + options.length) % options.length;
    if (next < 0) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(options[next].value);
    (group.current?.querySelectorAll('[role="radio"]')[next] as HTMLElement | undefined)?.focus();
  };
  const common = (o: Option<V>) =>
    ({
      type: 'button',
      role: 'radio',
      'aria-checked': o.value === value,
      tabIndex: o.value === value || (!options.some((x) => x.value === value) && o === options[0]) ? 0 : -1,
      title: o.help,
      cursor: 'pointer',
      onClick: () => onChange(o.value),
    }) as const;
  if (direction === 'cards')
    return (
      <Flex ref={group} role="radiogroup" aria-label={label} gap="1.5" onKeyDown={keys}>
        {options.map((o) => (
          <chakra.button key={o.value} {...common(o)} flex="1" minW="0" textAlign="left" px="2.5" py="2" borderRadius="card" borderWidth="1.5px" borderColor={o.value === value ? 'ink' : 'line'} bg="raised">
            {o.icon}
            <Text fontWeight="600" fontSize="12.5px" mt="1" lineHeight="1.25">{o.title}</Text>
            {o.help && <Text fontSize="11.5px" color="muted" lineHeight="1.3">{o.help}</Text>}
          </chakra.button>
        ))}
      </Flex>
    );
  return (
    <Flex ref={group} role="radiogroup" aria-label={label} bg="field" borderRadius="field" p="2px" flex="1" minW="0" onKeyDown={keys}>
      {options.map((o) => (
        <chakra.button key={o.value} {...common(o)} flex="1" px="1.5" h={`${height - 4}px`} borderRadius="4px" fontSize="11.5px" fontWeight="600" whiteSpace="nowrap" bg={o.value === value ? 'ink' : undefined} color={o.value === value ? 'inverse' : 'ink'}>
          {o.title}
        </chakra.button>
      ))}
    </Flex>
  );
}
