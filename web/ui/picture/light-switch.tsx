'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { useChoice } from '../parts/use-choice';
import { useEditor } from '../state/store';

/** How far a picture in true light has come. */
export interface Traced {
  /** Samples that every pixel has, and how many it is to have. */
  readonly samples: number;
  readonly of: number;
}

const LIGHTS = [
  { light: 'quick', title: 'Quick', help: 'Drawn by the graphics card, at once' },
  { light: 'true', title: 'True', help: 'Every ray followed, while the picture stands still' },
] as const;

/** Which light the picture stands still in. */
export function LightSwitch() {
  const light = useEditor((s) => s.light);
  const { group, option } = useChoice(
    LIGHTS.map((l) => l.light),
    light,
    (chosen) => useEditor.setState({ light: chosen }),
  );
  return (
    <Flex
      {...group}
      aria-label="Light"
      align="center"
      bg="panel"
      borderRadius="8px"
      p="3px"
      pl="2.5"
      gap="1"
      boxShadow="card"
      pointerEvents="auto"
      fontSize="12.5px"
    >
      <Text color="muted" mr="1">
        Light
      </Text>
      {LIGHTS.map((l) => (
        <chakra.button
          key={l.light}
          {...option(l.light)}
          title={l.help}
          px="2"
          py="0.5"
          borderRadius="6px"
          fontWeight="600"
          bg={l.light === light ? 'ink' : undefined}
          color={l.light === light ? 'inverse' : 'ink'}
          cursor="pointer"
        >
          {l.title}
        </chakra.button>
      ))}
    </Flex>
  );
}

/** Samples so far, and what true light does not show yet. */
export function TrueLightNote({ traced: { samples, of } }: { traced: Traced }) {
  return (
    <Flex
      role="status"
      align="center"
      bg="panel"
      borderRadius="8px"
      boxShadow="card"
      px="3"
      fontSize="12.5px"
      color="muted"
      whiteSpace="nowrap"
      fontVariantNumeric="tabular-nums"
      pointerEvents="auto"
      data-testid="traced"
      data-samples={samples}
      title="Patterns, films, grounds, air and picture effects are not in true light yet; endless forms are their faces."
    >
      {samples === 0 ? 'following rays…' : `${samples} of ${of} samples`}
    </Flex>
  );
}
