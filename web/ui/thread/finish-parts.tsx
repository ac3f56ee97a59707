'use client';

import { Box, Flex, Menu, Stack, Text } from '@chakra-ui/react';
import { ALWAYS } from '@maypole/core/finish/documents';
import { finishParts } from '@maypole/core/finish/parts/index';
import { identityOf } from '@maypole/core/maths/identity';
import { inOrder } from '@maypole/core/piece/adding';
import { newItem, type FinishDoc, type PartDoc } from '@maypole/core/piece/piece';
import { Plus, X } from 'lucide-react';
import { PictureButton, PlainButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { SwitchField } from '../fields/switch-field';
import { ValuesPanel, type Beside } from '../fields/values-panel';
import { patternKey } from '../pattern/edit-patterns';
import { PatternLayers } from '../pattern/pattern-layers';
import { PatternSwatch } from '../pattern/pattern-swatch';
import { useEditor } from '../state/store';
import { MenuList } from '../parts/menu-list';

interface Props {
  readonly ribbon: string;
  readonly finish: FinishDoc;
  readonly colour: string;
  /** The kind of faces, unless it is the main one. */
  readonly of?: string;
}

/** The parts of a finish, each with a switch, and a menu to add more. */
export function FinishParts({ ribbon, finish, colour, of }: Props) {
  const change = (label: string, to: (parts: FinishDoc['parts']) => FinishDoc['parts']) =>
    useEditor.getState().editRibbon(label, ribbon, (r) => ({
      ...r,
      finishes: r.finishes.map((f) => (f.id === finish.id ? { ...f, parts: to(f.parts) } : f)),
    }));
  const add = (kind: string) => {
    const part = finishParts.get(kind);
    change(`Add ${part.title.toLowerCase()}`, (parts) => inOrder([...parts, newItem(part)]));
  };
  const openSteps = useEditor((s) => s.openSteps);
  const missing = finishParts.all.filter((p) => !finish.parts.some((x) => x.kind === p.kind));
  return (
    <Stack gap="0.5">
      {finish.parts.map((p) => {
        const kind = finishParts.get(p.kind);
        const values = (
          <ValuesPanel
            owner={{ type: 'part', ribbon, item: p.id }}
            params={kind.params}
            values={p.values}
            colour={colour}
            of={ALWAYS.has(p.kind) ? of : of ? `${of} ${kind.title.toLowerCase()}` : kind.title}
            beside={besides(ribbon, p, colour, openSteps)}
          />
        );
        if (ALWAYS.has(p.kind)) return <Box key={p.id}>{values}</Box>;
        return (
          <Box key={p.id} borderTopWidth="1px" borderColor="line" mt="1" pt="1" data-testid={`part-${p.kind}`}>
            <Flex align="center" gap="1.5" minH="28px">
              <Box color={p.on ? 'ink' : 'muted'}>
                <DeclaredIcon name={kind.icon} size={14} />
              </Box>
              <Text flex="1" fontSize="12.5px" fontWeight="600" color={p.on ? 'ink' : 'muted'} title={kind.help}>
                {kind.title}
              </Text>
              <SwitchField
                label={`${kind.title} on`}
                value={p.on}
                onChange={(on) =>
                  change(`Switch ${kind.title.toLowerCase()}`, (parts) =>
                    parts.map((x) => (x.id === p.id ? { ...x, on } : x)),
                  )
                }
              />
              <PictureButton
                label={`Remove ${kind.title.toLowerCase()}`}
                color="muted"
                onClick={() =>
                  change(`Remove ${kind.title.toLowerCase()}`, (parts) => parts.filter((x) => x.id !== p.id))
                }
              >
                <X size={14} />
              </PictureButton>
            </Flex>
            {p.on && values}
          </Box>
        );
      })}
      {missing.length > 0 && (
        <Menu.Root positioning={{ placement: 'bottom-start' }} lazyMount>
          <Menu.Trigger asChild>
            <PlainButton alignSelf="flex-start" mt="1" mb="1" aria-label={`Add to ${(of ?? 'finish').toLowerCase()}`}>
              <Plus size={14} />
              Add
            </PlainButton>
          </Menu.Trigger>
          <MenuList maxW="300px">
            {missing.map((p) => (
              <Menu.Item key={p.kind} value={p.kind} onClick={() => add(p.kind)} alignItems="flex-start">
                <Box pt="0.5">
                  <DeclaredIcon name={p.icon} size={15} />
                </Box>
                <Box>
                  <Text fontWeight="600" fontSize="13px">
                    {p.title}
                  </Text>
                  <Text color="muted" fontSize="12px" lineHeight="1.3">
                    {p.help}
                  </Text>
                </Box>
              </Menu.Item>
            ))}
          </MenuList>
        </Menu.Root>
      )}
    </Stack>
  );
}

/** Patterns on the values of a part: a swatch in each row, and the layers below it while open. */
function besides(ribbon: string, part: PartDoc, colour: string, open: Readonly<Record<string, boolean>>): Beside {
  const kind = finishParts.get(part.kind);
  const layersOf = (name: string) => part.patterns?.filter((l) => l.of === name) ?? [];
  const isOpen = (name: string) => open[patternKey(part.id, name)] ?? false;
  return {
    swatch: (name, title, stored) =>
      kind.channels?.[name] && (
        <PatternSwatch
          part={part.kind}
          name={name}
          label={title}
          layers={layersOf(name)}
          stored={stored}
          open={isOpen(name)}
          onOpen={(next) =>
            useEditor.setState((s) => ({ openSteps: { ...s.openSteps, [patternKey(part.id, name)]: next } }))
          }
        />
      ),
    below: (name) =>
      kind.channels?.[name] && isOpen(name) ? (
        <PatternLayers ribbon={ribbon} part={part} name={name} layers={layersOf(name)} colour={colour} />
      ) : null,
    told: (name) => `${isOpen(name)}/${layersOf(name).map(identityOf).join()}`,
  };
}
