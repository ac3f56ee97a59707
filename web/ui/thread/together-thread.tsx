'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { RibbonDoc } from '@maypole/core/piece/piece';
import { Group, Palette, X } from 'lucide-react';
import { ValuesPanel } from '../fields/values-panel';
import { PictureButton } from '../parts/buttons';
import { useEditor } from '../state/store';
import { sharedParts, sharedSteps, sharedValues, type Shared } from '../state/multi-edit';

/** Several ribbons edited at once: the steps they have in common, and their finish. */
export function TogetherThread({ ribbons }: { ribbons: readonly RibbonDoc[] }) {
  const steps = sharedSteps(ribbons);
  const parts = sharedParts(ribbons);
  return (
    <Flex direction="column" flex="1" minW="0" minH="0" as="section" aria-label={`${ribbons.length} ribbons together`}>
      <Flex align="center" px="3" pt="2.5" pb="1" gap="2">
        <Text fontFamily="heading" fontWeight="700" fontSize="16px" pl="1" flex="1">
          {ribbons.length} ribbons together
        </Text>
        <PictureButton label="Back to one ribbon" onClick={() => useEditor.setState({ alsoRibbons: [] })}>
          <X size={16} />
        </PictureButton>
      </Flex>
      <Flex px="4" pb="2" gap="1.5" wrap="wrap">
        {ribbons.map((r) => (
          <Flex key={r.id} align="center" gap="1.5" fontSize="12px" color="muted">
            <Box w="8px" h="8px" borderRadius="full" bg={r.colour} />
            {r.name}
          </Flex>
        ))}
      </Flex>
      <Box flex="1" overflowY="auto" px="3" pb="5">
        {steps.length === 0 && (
          <Text fontSize="12.5px" color="muted" px="1" pb="2">
            They have no step in common; their finishes can be set together.
          </Text>
        )}
        {[...steps, ...parts].map((shared) => (
          <SharedCard
            key={shared.key}
            shared={shared}
            colour={ribbons[0].colour}
            icon={shared.key.startsWith('finish') ? <Palette size={14} /> : undefined}
          />
        ))}
      </Box>
    </Flex>
  );
}

/** Several selected steps of a ribbon: their values of the same name. */
export function StepsTogether({ ribbon }: { ribbon: RibbonDoc }) {
  const ids = useEditor((s) => s.stepsTogether);
  const steps = ribbon.steps.filter((s) => ids.includes(s.id));
  if (steps.length === 0) return null;
  const shared = sharedValues(ribbon, steps);
  return (
    <Box mb="3" bg="raised" borderWidth="1px" borderColor="sky" borderRadius="card">
      <Flex align="center" gap="2" px="2.5" minH="36px">
        <Group size={15} />
        <Text fontWeight="600" fontSize="13.5px" flex="1" truncate>
          {steps.length === 1 ? `${shared.title} and …` : `Together: ${shared.title}`}
        </Text>
        <PictureButton
          label="Edit steps one by one again"
          color="muted"
          onClick={() => useEditor.setState({ stepsTogether: [] })}
        >
          <X size={15} />
        </PictureButton>
      </Flex>
      {steps.length === 1 ? (
        <Text fontSize="12px" color="muted" px="2.5" pb="2">
          Choose more steps with Ctrl or Shift and a click on their names.
        </Text>
      ) : Object.keys(shared.params).length === 0 ? (
        <Text fontSize="12px" color="muted" px="2.5" pb="2">
          These steps have no value in common.
        </Text>
      ) : (
        <Box borderTopWidth="1px" borderColor="line" px="2.5" py="1.5">
          <SharedPanel shared={shared} colour={ribbon.colour} />
        </Box>
      )}
    </Box>
  );
}

function SharedCard({ shared, colour, icon }: { shared: Shared; colour: string; icon?: React.ReactNode }) {
  return (
    <Box
      mb="2"
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="card"
      data-testid={`together-${shared.key}`}
    >
      <Flex align="center" gap="2" px="2.5" minH="36px">
        {icon}
        <Text fontWeight="600" fontSize="13.5px">
          {shared.title}
        </Text>
        <Text fontSize="12px" color="muted">
          in all {shared.owners.length}
        </Text>
      </Flex>
      <Box borderTopWidth="1px" borderColor="line" px="2.5" py="1.5">
        <SharedPanel shared={shared} colour={colour} />
      </Box>
    </Box>
  );
}

function SharedPanel({ shared, colour }: { shared: Shared; colour: string }) {
  return (
    <ValuesPanel
      owner={shared.owners[0]}
      params={shared.params}
      values={shared.values[0]}
      colour={colour}
      others={shared.owners.slice(1).map((owner, i) => ({ owner, values: shared.values[i + 1] }))}
    />
  );
}
