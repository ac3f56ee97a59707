'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { VARIABLE_GROUPS, type Variable, type VariableGroup } from '@maypole/core/explore/variables';
import { ChevronRight, Lock } from 'lucide-react';
import { useState } from 'react';
import { isPlain, useSheet } from './sheet-store';

const set = (keys: Iterable<string>) => useSheet.setState({ chosen: new Set(keys), way: { type: 'spread' } });

/** Groups of values, each switched as a whole. */
export function GroupChips() {
  const variables = useSheet((s) => s.variables);
  const chosen = useSheet((s) => s.chosen);
  const groups = (Object.keys(VARIABLE_GROUPS) as VariableGroup[])
    .map((g) => ({ g, own: variables.filter((v) => v.group === g) }))
    .filter(({ own }) => own.length > 0);
  return (
    <Flex wrap="wrap" gap="1.5">
      {groups.map(({ g, own }) => {
        const plain = own.filter(isPlain);
        const all = plain.length > 0 ? plain : own;
        const on = all.filter((v) => chosen.has(v.key)).length;
        return (
          <Chip
            key={g}
            label={VARIABLE_GROUPS[g]}
            count={`${on}/${own.length}`}
            state={on === 0 ? 'off' : on === all.length ? 'on' : 'some'}
            onClick={() => {
              const others = [...useSheet.getState().chosen].filter((k) => !own.some((v) => v.key === k));
              set(on === all.length ? others : [...others, ...all.map((v) => v.key)]);
            }}
          />
        );
      })}
    </Flex>
  );
}

function Chip({
  label,
  count,
  state,
  onClick,
}: {
  label: string;
  count: string;
  state: 'on' | 'some' | 'off';
  onClick: () => void;
}) {
  return (
    <chakra.button
      type="button"
      aria-pressed={state === 'some' ? 'mixed' : state === 'on'}
      aria-label={`${label}: ${count} vary`}
      display="flex"
      gap="1.5"
      alignItems="center"
      px="2.5"
      h="26px"
      borderRadius="full"
      borderWidth="1px"
      borderColor={state === 'off' ? 'line' : 'ink'}
      bg={state === 'on' ? 'ink' : 'raised'}
      color={state === 'on' ? 'inverse' : 'ink'}
      fontSize="12.5px"
      fontWeight="600"
      onClick={onClick}
    >
      {label}
      <Text as="span" fontFamily="mono" fontSize="10.5px" fontWeight="400" opacity={0.75}>
        {count}
      </Text>
    </chakra.button>
  );
}

/** Every value that may vary, by ribbon and step. */
export function VariableTree() {
  const variables = useSheet((s) => s.variables);
  const places = [...new Set(variables.map((v) => v.place))];
  return (
    <Box>
      {places.map((place) => (
        <Branch key={place} title={place} own={variables.filter((v) => v.place === place)} />
      ))}
    </Box>
  );
}

function Branch({ title, own }: { title: string; own: readonly Variable[] }) {
  const [open, setOpen] = useState(false);
  const chosen = useSheet((s) => s.chosen);
  const locked = useSheet((s) => s.locked);
  const on = own.filter((v) => chosen.has(v.key)).length;
  const toggle = (keys: readonly string[], to: boolean) =>
    set(to ? [...chosen, ...keys] : [...chosen].filter((k) => !keys.includes(k)));
  return (
    <Box borderTopWidth="1px" borderColor="line">
      <Flex align="center" minH="30px" gap="1">
        <chakra.button
          type="button"
          aria-expanded={open}
          display="flex"
          alignItems="center"
          gap="1"
          flex="1"
          minW="0"
          fontSize="12.5px"
          fontWeight="600"
          onClick={() => setOpen(!open)}
        >
          <ChevronRight size={14} style={{ transform: open ? 'rotate(90deg)' : undefined, flexShrink: 0 }} />
          <Text as="span" truncate>
            {title}
          </Text>
        </chakra.button>
        <Text fontFamily="mono" fontSize="11px" color="muted">
          {on}/{own.length}
        </Text>
        <chakra.input
          type="checkbox"
          aria-label={`All values of ${title}`}
          checked={on === own.length}
          ref={(box: HTMLInputElement | null) => {
            if (box) box.indeterminate = on > 0 && on < own.length;
          }}
          onChange={(e) =>
            toggle(
              own.map((v) => v.key),
              e.target.checked,
            )
          }
        />
      </Flex>
      {open &&
        own.map((v) => (
          <Flex key={v.key} as="label" align="center" gap="2" pl="5" minH="24px" fontSize="12px" cursor="pointer">
            <Text flex="1" minW="0" truncate title={v.title}>
              {v.title}
            </Text>
            {locked.has(v.key) && <Lock size={12} aria-label="kept as it is" />}
            <chakra.input
              type="checkbox"
              checked={chosen.has(v.key)}
              onChange={(e) => toggle([v.key], e.target.checked)}
            />
          </Flex>
        ))}
    </Box>
  );
}
