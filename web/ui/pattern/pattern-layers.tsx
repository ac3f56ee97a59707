'use client';

import { Box, Flex, Menu, SimpleGrid, Text, chakra } from '@chakra-ui/react';
import { channelOf } from '@maypole/core/finish/part';
import { finishParts } from '@maypole/core/finish/parts/index';
import { patterns } from '@maypole/core/pattern/kinds/index';
import { layerParams } from '@maypole/core/pattern/layer';
import type { PatternDoc } from '@maypole/core/piece/piece';
import type { PartDoc } from '@maypole/core/piece/piece';
import { ArrowDown, ArrowUp, ChevronDown, Eye, EyeOff, Plus, X } from 'lucide-react';
import { ValuesPanel } from '../fields/values-panel';
import { PictureButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { useEditor } from '../state/store';
import { addPattern, editPatterns } from './edit-patterns';
import { PatternPicture } from './pattern-swatch';
import { MenuList } from '../parts/menu-list';

interface Props {
  readonly ribbon: string;
  readonly part: PartDoc;
  readonly name: string;
  readonly layers: readonly PatternDoc[];
  readonly colour: string;
}

/** The pattern layers of a value, lowest first, and a menu to add more. */
export function PatternLayers({ ribbon, part, name, layers, colour }: Props) {
  const title = channelOf(finishParts.get(part.kind), name)!.target.title;
  return (
    <Box
      role="list"
      aria-label={`Patterns of ${title}`}
      bg="field"
      borderRadius="8px"
      p="1"
      mx="-1.5"
      my="1"
      data-testid={`patterns-${name}`}
    >
      {layers.map((layer, i) => (
        <Layer key={layer.id} {...{ ribbon, part, name, colour, layer, number: i + 1, of: layers.length }} />
      ))}
      {layers.length === 0 ? (
        <>
          <Text fontSize="12px" color="muted" mb="1.5">
            {title} goes over the surface by
          </Text>
          <SimpleGrid columns={2} gap="1">
            {patterns.all.map((k) => (
              <chakra.button
                key={k.kind}
                type="button"
                title={k.help}
                onClick={() => addPattern(ribbon, part, name, k.kind)}
                display="flex"
                alignItems="center"
                gap="1.5"
                px="1.5"
                h="28px"
                borderRadius="field"
                bg="panel"
                fontSize="12px"
                textAlign="left"
                cursor="pointer"
                _hover={{ bg: 'raised' }}
              >
                <DeclaredIcon name={k.icon} size={13} />
                {k.title}
              </chakra.button>
            ))}
          </SimpleGrid>
        </>
      ) : (
        <AddLayer onAdd={(kind) => addPattern(ribbon, part, name, kind)} />
      )}
    </Box>
  );
}

function AddLayer({ onAdd }: { onAdd: (kind: string) => void }) {
  return (
    <Menu.Root positioning={{ placement: 'bottom-start' }} lazyMount>
      <Menu.Trigger asChild>
        <chakra.button
          type="button"
          display="flex"
          alignItems="center"
          gap="1.5"
          fontSize="12px"
          color="muted"
          cursor="pointer"
          _hover={{ color: 'ink' }}
          px="1"
          py="0.5"
        >
          <Plus size={13} />
          Add another layer
        </chakra.button>
      </Menu.Trigger>
      <MenuList maxW="280px">
        {patterns.all.map((k) => (
          <Menu.Item key={k.kind} value={k.kind} title={k.help} onClick={() => onAdd(k.kind)}>
            <DeclaredIcon name={k.icon} size={14} />
            {k.title}
          </Menu.Item>
        ))}
      </MenuList>
    </Menu.Root>
  );
}

function Layer({
  ribbon,
  part,
  name,
  colour,
  layer,
  number,
  of,
}: Omit<Props, 'layers'> & { layer: PatternDoc; number: number; of: number }) {
  const kind = patterns.get(layer.kind);
  const target = channelOf(finishParts.get(part.kind), name)!.target;
  const open = useEditor((s) => s.openSteps[layer.id] ?? number === of);
  const change = (label: string, to: (layers: readonly PatternDoc[]) => readonly PatternDoc[]) =>
    editPatterns(`${label} ${kind.title.toLowerCase()} pattern`, ribbon, part.id, to);
  /** Swaps it with its neighbour on the same value. */
  const move = (by: 1 | -1) =>
    change('Move', (all) => {
      const own = all.filter((l) => l.of === name);
      const other = own[own.findIndex((l) => l.id === layer.id) + by];
      if (!other) return all;
      return all.map((l) => (l.id === layer.id ? other : l.id === other.id ? layer : l));
    });
  return (
    <Box role="listitem" mb="1.5" bg="panel" borderRadius="8px" opacity={layer.on ? 1 : 0.6}>
      <Flex align="center" gap="0.5" pl="1.5" h="32px">
        <chakra.button
          type="button"
          aria-expanded={open}
          aria-label={`Layer ${number}, ${kind.title}`}
          onClick={() => useEditor.setState((s) => ({ openSteps: { ...s.openSteps, [layer.id]: !open } }))}
          flex="1"
          minW="0"
          display="flex"
          alignItems="center"
          gap="1.5"
          cursor="pointer"
          textAlign="left"
        >
          <PatternOne part={part.kind} name={name} layer={layer} stored={part.values[name] ?? target.default} />
          <Text fontSize="12.5px" fontWeight="600" truncate title={kind.help}>
            {kind.title}
          </Text>
          <Box color="muted" transform={open ? 'rotate(180deg)' : undefined}>
            <ChevronDown size={13} />
          </Box>
        </chakra.button>
        <PictureButton
          label={layer.on ? `Switch layer ${number} off` : `Switch layer ${number} on`}
          minW="24px"
          color="muted"
          onClick={() => change('Switch', (all) => all.map((l) => (l.id === layer.id ? { ...l, on: !l.on } : l)))}
        >
          {layer.on ? <Eye size={13} /> : <EyeOff size={13} />}
        </PictureButton>
        {of > 1 && (
          <>
            <PictureButton
              label={`Layer ${number} lower`}
              minW="24px"
              color="muted"
              disabled={number === 1}
              onClick={() => move(-1)}
            >
              <ArrowUp size={13} />
            </PictureButton>
            <PictureButton
              label={`Layer ${number} higher`}
              minW="24px"
              color="muted"
              disabled={number === of}
              onClick={() => move(1)}
            >
              <ArrowDown size={13} />
            </PictureButton>
          </>
        )}
        <PictureButton
          label={`Remove layer ${number}`}
          minW="24px"
          color="muted"
          onClick={() => change('Remove', (all) => all.filter((l) => l.id !== layer.id))}
        >
          <X size={13} />
        </PictureButton>
      </Flex>
      {open && (
        <Box px="1" pb="1.5">
          <ValuesPanel
            owner={{ type: 'pattern', ribbon, item: layer.id }}
            params={layerParams(kind, target)}
            values={layer.values}
            colour={colour}
          />
        </Box>
      )}
    </Box>
  );
}

/** Preview of a single layer. */
function PatternOne({ part, name, layer, stored }: { part: string; name: string; layer: PatternDoc; stored: unknown }) {
  const alone = aloneOf(layer);
  return <PatternPicture part={part} name={name} layers={alone} stored={stored} />;
}

const lists = new WeakMap<PatternDoc, readonly PatternDoc[]>();

/** The layer as a list; the same list for the same layer. */
function aloneOf(layer: PatternDoc): readonly PatternDoc[] {
  let list = lists.get(layer);
  if (!list) lists.set(layer, (list = [layer]));
  return list;
}
