'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import type { CopiesNote } from '@maypole/core/evaluate/ribbon';
import type { StepDoc } from '@maypole/core/piece/piece';
import { stepKind } from '@maypole/core/steps/index';
import { copiesAsOf, copiesChoices, formatCount, type CopiesAs } from '@maypole/core/steps/step';
import { Choice } from '../parts/choice';
import { setCopiesAs } from '../state/actions';
import { useEditor } from '../state/store';

const TITLES: Record<CopiesAs, { title: string; help: string }> = {
  whole: { title: 'Move whole', help: 'Copies stay as they are and are moved and turned with the step' },
  each: { title: 'Each by itself', help: 'The step works on every copy as if there were no other' },
  one: { title: 'All as one', help: 'Copies become one form with faces of its own, which costs more' },
};

/** What a step does with incoming copies, if there is a choice. */
export function CopiesChoice({ ribbonId, step }: { ribbonId: string; step: StepDoc }) {
  const kind = stepKind(step.kind);
  const now = copiesAsOf(kind, step.copies);
  if (now === null) return null;
  return (
    <Flex align="center" gap="2" py="1" minH="28px">
      <Text fontSize="12.5px" color="muted" w="88px" flexShrink={0}>
        Copies
      </Text>
      <Choice
        label="What it does with copies"
        value={now}
        onChange={(c) => setCopiesAs(ribbonId, step.id, c)}
        options={copiesChoices(kind).map((c) => ({ value: c, ...TITLES[c] }))}
      />
    </Flex>
  );
}

/** The number of copies after a step, and what they cost to draw. */
export function CopiesReadOut({ note, ribbonId }: { note: CopiesNote; ribbonId: string }) {
  const mb = (note.copies * 72) / 1024 / 1024;
  const words = [
    `${formatCount(note.copies)} ${note.copies === 1 ? 'copy' : 'copies'}`,
    ...(note.shapes > 1 ? [`${formatCount(note.shapes)} shapes`] : []),
    `${formatCount(note.faces)} faces drawn`,
    ...(mb >= 0.1 ? [`${Number(mb.toPrecision(2))} MB a frame`] : []),
  ];
  return (
    <chakra.button
      type="button"
      data-testid="copies-read-out"
      title="Shows what each copy has of its own"
      onClick={() => useEditor.setState({ copy: { ribbon: ribbonId, number: 0 } })}
      display="block"
      textAlign="left"
      fontSize="11.5px"
      color="muted"
      mx="2.5"
      mb="1.5"
      mt="-1"
      lineHeight="1.35"
      cursor="pointer"
      _hover={{ color: 'ink' }}
    >
      {words.join(' · ')}
    </chakra.button>
  );
}
